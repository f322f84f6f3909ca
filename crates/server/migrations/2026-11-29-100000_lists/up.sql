-- What earlier programs cannot read: lists, and pictures cut, mirrored and drawn out. Nothing moves; what is here turns
-- those away.
SELECT 1;
