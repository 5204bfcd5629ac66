export { gather, predict, REST, setMaterial, setStructure, tangentInto, tangentOf } from './element';
export { addBlock, assemble, backward, clear, eliminate, forward, handOn, keepPanel } from './front';
export { setLayers } from './plastic';

/** Where the memory begins that is not the routines' own. */
export function start(): usize {
  return __heap_base;
}
