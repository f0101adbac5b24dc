import { Navigate, useParams } from 'react-router';
import { findBox } from '@zb/core/model/bench';
import { currentStop } from '@zb/core/box/summary';
import { useBench } from '../storage/hooks';
import NotFound from '../parts/NotFound';

export default function BoxHome() {
  const { boxId } = useParams();
  const box = findBox(useBench(), boxId);
  return box ? (
    <Navigate to={`/box/${box.id}/${currentStop(box)}`} replace />
  ) : (
    <NotFound what="This box is not on the bench" />
  );
}
