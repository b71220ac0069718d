import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { growthOf, growthToCutOpen, inTime } from '#core/survey/growth';
import { inHand } from '#core/survey/inHand';
import { Moment } from '../frame/Moment';
import { PiecePictures } from '../piece/PiecePictures';
import { LOOK_WORDS } from '../piece/road/surveyWords';
import { Growth } from './Growth';
import { outlinesOn } from './outlines';
import { grownSaid } from '../frame/measuredWords';
import { usePieceSurvey } from './usePieceSurvey';
import { useSurvey } from './useSurvey';

/** What was found that this piece mends, and the pictures of it as it was found. */
export function FoundHere() {
  const { job, all } = useSurvey();
  const { draft, set, pictures } = usePieceSurvey();
  const findings = inHand(all, 'finding');
  const mine = findings.filter(({ id }) => draft.mends.includes(id));
  const others = findings.filter(({ id }) => !draft.mends.includes(id));
  const areaOf = outlinesOn(pictures);
  const growth = growthToCutOpen(findings, areaOf);
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 3 }}>
      <PiecePictures owner="piece" title="As it was found" />
      <Box component="section" aria-label="Findings it mends">
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap', mb: 1 }}>
          <Typography variant="h2" sx={{ flex: 1 }}>
            Findings it mends
          </Typography>
          <Button component={Link} to={`/jobs/${job}/found`} color="inherit" variant="outlined">
            All that was found
          </Button>
        </Box>
        {mine.length === 0 && (
          <Typography sx={{ color: 'var(--pencil)' }}>
            {findings.length === 0
              ? 'Nothing is written down for this vehicle yet: begin with “All that was found”.'
              : 'Say below which of them this piece mends.'}
          </Typography>
        )}
        <Box
          component="ul"
          sx={{
            listStyle: 'none',
            m: 0,
            p: 0,
            display: 'grid',
            gap: 1.5,
            gridTemplateColumns: { sm: '1fr 1fr', lg: '1fr 1fr 1fr' },
          }}
        >
          {mine.map((finding) => {
            const times = growthOf(finding, areaOf);
            const last = inTime(finding.looks).pop();
            return (
              <Box
                component="li"
                key={finding.id}
                sx={{ bgcolor: 'var(--panel)', border: '1.5px solid var(--rule)' }}
              >
                <Box sx={{ bgcolor: 'var(--bench-top)' }}>
                  <Growth looks={finding.looks} />
                </Box>
                <Box sx={{ p: 1.2 }}>
                  <Typography variant="h3">{finding.name}</Typography>
                  <Box sx={{ fontSize: '0.95rem' }}>
                    {last ? (
                      <>
                        {LOOK_WORDS[last.how]} <Moment at={last.at} />
                      </>
                    ) : (
                      'Not measured yet'
                    )}
                    {times !== null && <b> · {grownSaid(times)}</b>}
                  </Box>
                  <Button
                    size="small"
                    color="inherit"
                    sx={{ ml: -1 }}
                    onClick={() => set({ mends: draft.mends.filter((id) => id !== finding.id) })}
                  >
                    Not this piece’s
                  </Button>
                </Box>
              </Box>
            );
          })}
        </Box>
        {mine.length > 0 && growth && (
          <Typography sx={{ mt: 1 }}>
            So far here findings are <b className="figure">{growth.times.toFixed(1)}</b> times as
            large when cut open as at first sight: make the card and guess the hours with that.
          </Typography>
        )}
        {others.length > 0 && (
          <Box sx={{ mt: 1.5, display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
            <span>It also mends:</span>
            {others.map(({ id, name }) => (
              <Button
                key={id}
                size="small"
                variant="outlined"
                color="inherit"
                onClick={() => set({ mends: [...draft.mends, id] })}
              >
                {name}
              </Button>
            ))}
          </Box>
        )}
      </Box>
    </Box>
  );
}
