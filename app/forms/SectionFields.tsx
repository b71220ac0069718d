import Box from '@mui/material/Box';
import type { WrittenSection } from '#core/blank/bead/section';
import { beadSize, sectionIn } from '#core/blank/bead/section';
import { Choice } from './Choice';
import { LengthField } from './LengthField';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { problemSentence } from '../frame/sentences';
import { emptyPattern } from '#core/card/emptyPattern';

const KINDS = [
  ['arc', 'Round'],
  ['flat-topped', 'Flat-topped'],
  ['v', 'V'],
  ['step', 'Step: one side lies higher'],
] as const;

/** A section of another kind with as much of the figures as carries over. */
function asKind(kind: WrittenSection['kind'], from: WrittenSection): WrittenSection {
  const [widthMm, heightMm] =
    from.kind === 'step' ? [12, from.depthMm] : [from.widthMm, from.heightMm];
  switch (kind) {
    case 'arc':
      return { kind, widthMm, heightMm: Math.min(heightMm, widthMm / 2) };
    case 'flat-topped':
      return { kind, widthMm, topMm: widthMm / 2, heightMm };
    case 'v':
      return { kind, widthMm, heightMm };
    case 'step':
      return { kind, depthMm: heightMm, radiusMm: null };
  }
}

/** What a bead looks like cut across, in figures; what cannot be is said. */
export function SectionFields({
  section,
  onChange,
}: {
  section: WrittenSection;
  onChange: (next: WrittenSection) => void;
}) {
  const { show } = usePreferences();
  const size = beadSize(sectionIn(section, 1, 1));
  return (
    <>
      <Choice
        label="Cut across it is"
        value={section.kind}
        onChange={(kind) => onChange(asKind(kind, section))}
        options={KINDS}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        {section.kind === 'step' ? (
          <>
            <LengthField
              label="Steps by"
              mm={section.depthMm}
              min={0.1}
              thin
              onChange={(mm) => mm && onChange({ ...section, depthMm: mm })}
            />
            <LengthField
              label="Inside radius (empty: usual)"
              mm={section.radiusMm}
              min={0}
              thin
              empty="usual"
              onChange={(radiusMm) => onChange({ ...section, radiusMm })}
            />
          </>
        ) : (
          <>
            <LengthField
              label="Wide"
              mm={section.widthMm}
              min={1}
              onChange={(mm) => mm && onChange({ ...section, widthMm: mm })}
            />
            <LengthField
              label="High"
              mm={section.heightMm}
              min={0.1}
              thin
              onChange={(mm) => mm && onChange({ ...section, heightMm: mm })}
            />
            {section.kind === 'flat-topped' && (
              <LengthField
                label="Its top is wide"
                mm={section.topMm}
                min={0.1}
                onChange={(mm) => mm && onChange({ ...section, topMm: mm })}
              />
            )}
          </>
        )}
      </Box>
      {!size.ok && <Told>{problemSentence(size.problems[0]!, emptyPattern(), show)}</Told>}
    </>
  );
}
