DROP TABLE facts;
