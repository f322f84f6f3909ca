DROP TABLE logbook;
