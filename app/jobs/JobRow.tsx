import { Link } from 'react-router';
import { Thumbnail } from '../drawing/Thumbnail';
import type { Silhouette } from '../drawing/silhouette';
import { Moment } from '../frame/Moment';
import './jobRow.css';

/** What a row tells of a job; `created`: an ISO moment, `pieces`: their number. */
export type ListedJob = {
  id: string;
  name: string;
  vehicle: string;
  owner: string;
  created: string;
  pieces: number;
  silhouettes: Silhouette[];
};

/** One job in the list, a way to its page. */
export function JobRow({ job }: { job: ListedJob }) {
  return (
    <Link to={`/jobs/${job.id}`} className="job-row">
      <div className="job-row-names">
        <h2>{job.name}</h2>
        <div className="job-row-about">
          {[job.vehicle, job.owner].filter(Boolean).join(' · ') || 'No vehicle named yet'}
        </div>
        {job.silhouettes.length > 0 && (
          <div className="job-row-pieces">
            {job.silhouettes.map((silhouette, i) => (
              <span key={i}>
                <Thumbnail of={silhouette} material="card" />
              </span>
            ))}
          </div>
        )}
      </div>
      <div className="job-row-count">
        <span className="figure">{job.pieces}</span>
        {job.pieces === 1 ? 'piece' : 'pieces'}
      </div>
      <div className="job-row-begun">
        begun
        <br />
        <Moment at={job.created} />
      </div>
    </Link>
  );
}
