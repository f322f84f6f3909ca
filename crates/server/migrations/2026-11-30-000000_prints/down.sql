DROP TABLE prints;
