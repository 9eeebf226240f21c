-- Every statement here can be run again.

-- Primed panel, primed canvas and paper drink less, and slower, than was told before: a tone on primed canvas set
-- after one minute. A ground with just the numbers of one of them is that ground, with its new numbers; any other
-- was the painter's own and stays.
UPDATE picture SET body = JSON_SET(body, '$.absorbs_um', 6.0, '$.delay_s', 600.0)
  WHERE JSON_VALUE(body, '$.absorbs_um') = 10 AND COALESCE(JSON_VALUE(body, '$.delay_s'), 120) = 120
    AND COALESCE(JSON_VALUE(body, '$.back'), 0) = 0;
UPDATE picture SET body = JSON_SET(body, '$.absorbs_um', 12.0, '$.delay_s', 600.0)
  WHERE JSON_VALUE(body, '$.absorbs_um') = 20 AND COALESCE(JSON_VALUE(body, '$.delay_s'), 120) = 120
    AND JSON_VALUE(body, '$.back') = 0.3;
UPDATE picture SET body = JSON_SET(body, '$.delay_s', 120.0)
  WHERE JSON_VALUE(body, '$.absorbs_um') = 60 AND JSON_VALUE(body, '$.delay_s') = 60
    AND JSON_VALUE(body, '$.back') = 0.5;
UPDATE revision SET body = JSON_SET(body, '$.absorbs_um', 6.0, '$.delay_s', 600.0)
  WHERE JSON_VALUE(body, '$.absorbs_um') = 10 AND COALESCE(JSON_VALUE(body, '$.delay_s'), 120) = 120
    AND COALESCE(JSON_VALUE(body, '$.back'), 0) = 0;
UPDATE revision SET body = JSON_SET(body, '$.absorbs_um', 12.0, '$.delay_s', 600.0)
  WHERE JSON_VALUE(body, '$.absorbs_um') = 20 AND COALESCE(JSON_VALUE(body, '$.delay_s'), 120) = 120
    AND JSON_VALUE(body, '$.back') = 0.3;
UPDATE revision SET body = JSON_SET(body, '$.delay_s', 120.0)
  WHERE JSON_VALUE(body, '$.absorbs_um') = 60 AND JSON_VALUE(body, '$.delay_s') = 60
    AND JSON_VALUE(body, '$.back') = 0.5;
