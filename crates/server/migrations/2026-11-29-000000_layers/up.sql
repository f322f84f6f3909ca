-- Layers that earlier programs cannot read: text, shapes and patterns. Nothing moves; what is here turns those away.
SELECT 1;
