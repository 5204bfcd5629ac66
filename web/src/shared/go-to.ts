import type { Where } from '@plate-fold/core/checks';
import { useStore } from 'react-redux';
import { useNavigate, useParams } from 'react-router';
import { selectDocument } from '../state/select';
import { type RootState, useAppDispatch } from '../state/store';
import { jointSelected, panelSelected } from '../state/view-slice';

/** Goes where something is: to its stage, with the plate and the joint it is about chosen, so that they are lit on the map. */
export function useGoTo(): (where: Where | 'rig' | 'log', about?: readonly string[]) => void {
  const navigate = useNavigate();
  const { planId = '' } = useParams();
  const dispatch = useAppDispatch();
  const store = useStore<RootState>();
  return (where, about = []) => {
    const plan = selectDocument(store.getState())?.plan;
    const joint = plan?.joints.find(j => about.includes(j.id));
    const panel =
      plan?.panels.find(p => about.includes(p.id)) ?? plan?.panels.find(p => joint?.panels.includes(p.id));
    if (panel) dispatch(panelSelected(panel.id));
    if (joint) dispatch(jointSelected(joint.id));
    navigate(`/plan/${encodeURIComponent(planId)}/${where}`);
  };
}
