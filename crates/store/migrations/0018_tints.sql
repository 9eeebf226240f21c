-- Every statement here can be run again.

-- Over two cards a dark paint is dark whether it is strong or ten times stronger: the paints of the starter shelf get
-- their tints, and the looks that contradicted them give way. A paint whose readings are not just those it began with
-- was the painter's own and stays.
BEGIN NOT ATOMIC
  FOR p IN (
    SELECT 'heavy-pbk9' AS id, '[42,41,38]' AS was_white, '[31,30,29]' AS was_black,
      '[42,41,38]' AS white, '[31,30,29]' AS black, '[146,145,144]' AS tint
    UNION ALL
    SELECT 'heavy-pbr7' AS id, '[128,60,34]' AS was_white, '[58,34,26]' AS was_black,
      '[88,49,31]' AS white, '[68,41,28]' AS black, '[189,156,142]' AS tint
    UNION ALL
    SELECT 'heavy-py42' AS id, '[196,146,62]' AS was_white, '[160,120,56]' AS was_black,
      '[181,136,57]' AS white, '[170,128,57]' AS black, '[220,197,154]' AS tint
    UNION ALL
    SELECT 'heavy-py74' AS id, '[250,206,30]' AS was_white, '[110,96,36]' AS was_black,
      '[248,174,8]' AS white, '[108,100,44]' AS black, '[246,224,126]' AS tint
    UNION ALL
    SELECT 'heavy-pr254' AS id, '[196,32,34]' AS was_white, '[150,30,32]' AS was_black,
      '[176,32,35]' AS white, '[163,31,34]' AS black, '[228,139,132]' AS tint
    UNION ALL
    SELECT 'heavy-pb29' AS id, '[38,52,150]' AS was_white, '[18,20,48]' AS was_black,
      '[33,27,96]' AS white, '[21,26,54]' AS black, '[147,162,214]' AS tint
    UNION ALL
    SELECT 'heavy-pg7' AS id, '[4,80,62]' AS was_white, '[6,33,27]' AS was_black,
      '[3,47,35]' AS white, '[5,40,30]' AS black, '[95,179,160]' AS tint
    UNION ALL
    SELECT 'heavy-pr101' AS id, '[140,53,38]' AS was_white, '[118,46,34]' AS was_black,
      '[140,53,38]' AS white, '[118,46,34]' AS black, '[192,138,124]' AS tint
    UNION ALL
    SELECT 'fluid-pv19' AS id, '[170,20,70]' AS was_white, '[52,14,24]' AS was_black,
      '[104,13,42]' AS white, '[57,16,32]' AS black, '[221,138,170]' AS tint
    UNION ALL
    SELECT 'fluid-pb15' AS id, '[10,60,130]' AS was_white, '[10,18,34]' AS was_black,
      '[4,28,60]' AS white, '[2,21,38]' AS black, '[91,155,208]' AS tint
    UNION ALL
    SELECT 'fluid-py150' AS id, '[214,150,20]' AS was_white, '[52,42,24]' AS was_black,
      '[194,116,8]' AS white, '[51,46,20]' AS black, '[236,212,140]' AS tint
    UNION ALL
    SELECT 'fluid-pbk7' AS id, '[31,31,32]' AS was_white, '[27,27,28]' AS was_black,
      '[31,31,32]' AS white, '[27,27,28]' AS black, '[113,116,119]' AS tint
    UNION ALL
    SELECT 'student-pb29' AS id, '[58,71,159]' AS was_white, '[22,24,46]' AS was_black,
      '[45,35,104]' AS white, '[27,32,51]' AS black, '[169,179,218]' AS tint
    UNION ALL
    SELECT 'student-pr254' AS id, '[201,58,56]' AS was_white, '[110,34,38]' AS was_black,
      '[156,46,47]' AS white, '[118,40,42]' AS black, '[234,169,162]' AS tint
    UNION ALL
    SELECT 'slow-pb29' AS id, '[38,52,140]' AS was_white, '[18,20,48]' AS was_black,
      '[33,27,96]' AS white, '[21,26,54]' AS black, '[147,162,214]' AS tint
    UNION ALL
    SELECT 'slow-pbr7' AS id, '[122,58,34]' AS was_white, '[56,33,24]' AS was_black,
      '[88,49,31]' AS white, '[68,41,28]' AS black, '[189,156,142]' AS tint
    UNION ALL
    SELECT 'airbrush-pbk7' AS id, '[43,43,44]' AS was_white, '[30,30,31]' AS was_black,
      '[43,43,44]' AS white, '[30,30,31]' AS black, '[148,150,154]' AS tint
  ) DO
    UPDATE shelf SET body = JSON_SET(body,
        REPLACE(JSON_UNQUOTE(JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id')), '].id', '].tint'),
        JSON_OBJECT('colour', JSON_COMPACT(p.tint), 'white', 'heavy-pw6', 'white_parts', 10.0),
        REPLACE(JSON_UNQUOTE(JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id')), '].id', '].drawdown.over_white'), JSON_COMPACT(p.white),
        REPLACE(JSON_UNQUOTE(JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id')), '].id', '].drawdown.over_black'), JSON_COMPACT(p.black))
      WHERE JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id') IS NOT NULL
        AND JSON_SEARCH(body, 'one', 'heavy-pw6', NULL, '$.materials[*].id') IS NOT NULL
        AND JSON_COMPACT(JSON_EXTRACT(body, REPLACE(JSON_UNQUOTE(JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id')), '].id', '].drawdown.over_white'))) = p.was_white
        AND JSON_COMPACT(JSON_EXTRACT(body, REPLACE(JSON_UNQUOTE(JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id')), '].id', '].drawdown.over_black'))) = p.was_black
        AND COALESCE(JSON_EXTRACT(body, REPLACE(JSON_UNQUOTE(JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id')), '].id', '].tint')), 'null') = 'null';
    UPDATE revision SET body = JSON_SET(body,
        REPLACE(JSON_UNQUOTE(JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id')), '].id', '].tint'),
        JSON_OBJECT('colour', JSON_COMPACT(p.tint), 'white', 'heavy-pw6', 'white_parts', 10.0),
        REPLACE(JSON_UNQUOTE(JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id')), '].id', '].drawdown.over_white'), JSON_COMPACT(p.white),
        REPLACE(JSON_UNQUOTE(JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id')), '].id', '].drawdown.over_black'), JSON_COMPACT(p.black))
      WHERE JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id') IS NOT NULL
        AND JSON_SEARCH(body, 'one', 'heavy-pw6', NULL, '$.materials[*].id') IS NOT NULL
        AND JSON_COMPACT(JSON_EXTRACT(body, REPLACE(JSON_UNQUOTE(JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id')), '].id', '].drawdown.over_white'))) = p.was_white
        AND JSON_COMPACT(JSON_EXTRACT(body, REPLACE(JSON_UNQUOTE(JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id')), '].id', '].drawdown.over_black'))) = p.was_black
        AND COALESCE(JSON_EXTRACT(body, REPLACE(JSON_UNQUOTE(JSON_SEARCH(body, 'one', p.id, NULL, '$.materials[*].id')), '].id', '].tint')), 'null') = 'null';
  END FOR;
END;
