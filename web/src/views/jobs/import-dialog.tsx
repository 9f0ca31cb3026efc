import { ApiError } from '../../data/api.js';
import { Button } from '../../ui/button.js';
import { Dialog } from '../../ui/dialog.js';

export interface Refused {
  file: File;
  error: unknown;
}

/** Why a file was not taken in, field by field; a known job is asked about. */
export function ImportDialog({
  refused,
  onClose,
  onTake,
}: {
  refused: Refused | null;
  onClose: () => void;
  onTake: (file: File, existing: 'replace' | 'copy') => void;
}) {
  const error = refused?.error;
  const known = error instanceof ApiError && error.code === 'job-exists';
  return (
    <Dialog
      title={known ? 'This job is here already' : 'The file cannot be imported'}
      open={refused !== null}
      onClose={onClose}
    >
      {known && refused && (
        <div className="flex flex-col gap-3">
          <p>Replacing it drops what is here. A copy stands beside it under an id of its own.</p>
          <div className="flex flex-wrap gap-2">
            <Button kind="main" onClick={() => onTake(refused.file, 'copy')}>
              Import it as a copy
            </Button>
            <Button kind="stop" onClick={() => onTake(refused.file, 'replace')}>
              Replace what is here
            </Button>
          </div>
        </div>
      )}
      {!known && (
        <div className="flex flex-col gap-2">
          <p>
            {error instanceof SyntaxError
              ? `It is not JSON: ${error.message}`
              : error instanceof Error
                ? error.message
                : 'It cannot be read.'}
          </p>
          {error instanceof ApiError && (
            <ul className="max-h-80 overflow-y-auto rounded-md border border-rule bg-sheet p-3 font-mono text-sm">
              {error.problems.map((problem) => (
                <li key={`${problem.path}${problem.message}`}>
                  <strong>{problem.path || '(whole file)'}</strong> {problem.message}
                </li>
              ))}
            </ul>
          )}
          <p className="text-soft">Nothing here was changed.</p>
        </div>
      )}
    </Dialog>
  );
}
