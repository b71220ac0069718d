import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import type { DragEndEvent } from '@dnd-kit/core';
import {
  SortableContext,
  arrayMove,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import DragIndicatorIcon from '@mui/icons-material/DragIndicator';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import type { BrokenRule } from '#core/shape/rules';
import type { StepWork } from '#core/shape/shaping';
import type { ShapeStep } from '#core/shape/shapeStep';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';
import { COUNT_WORDS, RULE_WORDS, stepSaid } from '../piece/stepWords';

type Props = {
  steps: readonly ShapeStep[];
  broken: readonly BrokenRule[];
  workOn: (key: string) => StepWork;
  looked: string | null;
  next: string | null;
  look: (key: string) => void;
  move: (keys: string[]) => void;
};

/**
 * All steps in their order; dragged by their grips, by hand or with the arrow keys, they go
 * elsewhere.
 */
export function StepList({ steps, broken, workOn, looked, next, look, move }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const keys = steps.map(({ key }) => key);
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id)
      move(arrayMove(keys, keys.indexOf(String(active.id)), keys.indexOf(String(over.id))));
  };
  return (
    <DndContext
      id="working-order"
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={dropped}
    >
      <SortableContext items={keys} strategy={verticalListSortingStrategy}>
        <Box
          component="ol"
          aria-label="Steps"
          sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 0.6 }}
        >
          {steps.map((step, i) => (
            <Row
              key={step.key}
              step={step}
              number={i + 1}
              broken={broken.filter(({ then }) => then === step.key)}
              steps={steps}
              work={workOn(step.key)}
              isNext={step.key === next}
              isLooked={step.key === looked}
              look={look}
            />
          ))}
        </Box>
      </SortableContext>
    </DndContext>
  );
}

type RowProps = {
  step: ShapeStep;
  number: number;
  broken: readonly BrokenRule[];
  steps: readonly ShapeStep[];
  work: StepWork;
  isNext: boolean;
  isLooked: boolean;
  look: (key: string) => void;
};

function Row({ step, number, broken, steps, work, isNext, isLooked, look }: RowProps) {
  const { pattern } = usePiece();
  const { show, showThin } = usePreferences();
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: step.key,
  });
  const titleOf = (one: ShapeStep) => stepSaid(one, pattern, { show, showThin }).title;
  const title = titleOf(step);
  // Of each rule the first step that should have come before.
  const late = broken.flatMap(({ rule, first }, i) => {
    const before = steps.find(({ key }) => key === first);
    return before && broken.findIndex((one) => one.rule === rule) === i
      ? [{ rule, first: before }]
      : [];
  });
  const { counts } = step;
  return (
    <Box
      component="li"
      ref={setNodeRef}
      aria-current={isNext ? 'step' : undefined}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      sx={{ zIndex: isDragging ? 3 : undefined, position: 'relative', bgcolor: 'var(--panel)' }}
    >
      <Box
        sx={{
          display: 'flex',
          alignItems: 'stretch',
          borderLeft: `6px solid ${isNext ? 'var(--torch)' : work.done ? 'var(--good)' : 'var(--rule)'}`,
          bgcolor: isLooked ? 'var(--torch-ground)' : undefined,
        }}
      >
        <ButtonBase
          onClick={() => look(step.key)}
          sx={{
            flex: 1,
            justifyContent: 'flex-start',
            textAlign: 'left',
            fontFamily: 'inherit',
            fontSize: '1rem',
            minHeight: 46,
            pl: 1.2,
            py: 0.4,
            opacity: work.done && !isLooked ? 0.72 : 1,
          }}
        >
          {number}. {title}
          {counts &&
            (work.count > 0 || counts.wanted !== null) &&
            ` · ${work.count > 0 ? `${work.count} of ` : ''}${counts.wanted ?? '?'} ${COUNT_WORDS[counts.of][1]}`}
          {work.done ? ' · done' : ''}
        </ButtonBase>
        <IconButton
          aria-label={`Move step ${number}, ${title}`}
          {...attributes}
          {...listeners}
          sx={{ width: 46, borderRadius: 0, cursor: 'grab', touchAction: 'none' }}
        >
          <DragIndicatorIcon />
        </IconButton>
      </Box>
      {late.length > 0 && (
        <Box
          role="alert"
          sx={{
            pl: 1.8,
            pr: 1,
            py: 0.6,
            borderLeft: '6px solid var(--torch)',
            bgcolor: 'var(--torch-ground)',
          }}
        >
          {late.map(({ rule, first }) => (
            <div key={rule.id}>
              “{titleOf(first)}” should come before it: {RULE_WORDS[rule.id]}.{' '}
              <Box component="span" sx={{ color: 'var(--pencil)' }}>
                ({rule.source})
              </Box>
            </div>
          ))}
        </Box>
      )}
    </Box>
  );
}
