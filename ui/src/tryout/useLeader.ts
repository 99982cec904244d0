/** useLeader has no copy of a class: on this page each press is asked for, and answered here. */
export const useLeader = () => ({ leader: null, alone: null });
