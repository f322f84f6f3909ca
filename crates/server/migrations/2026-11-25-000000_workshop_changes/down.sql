DROP TABLE workshop_changes;
DROP TABLE workshop_head;
