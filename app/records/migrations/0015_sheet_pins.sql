-- Sheet pins went by another word, the only one that is none of today's.
UPDATE "fits" SET "held" = 'sheet-pins'
  WHERE "held" NOT IN ('hand', 'magnets', 'clamps', 'screws', 'tacks');
