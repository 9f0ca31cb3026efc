/** Addresses of the views, in one place. */
export const paths = {
  jobs: '/',
  board: (jobId: string) => `/jobs/${jobId}`,
  brief: (jobId: string) => `/jobs/${jobId}/brief`,
  plans: (jobId: string) => `/jobs/${jobId}/plans`,
  materials: (jobId: string) => `/jobs/${jobId}/materials`,
  catalogue: (jobId: string, kind = 'devices') => `/jobs/${jobId}/catalogue/${kind}`,
  catalogueDevice: (jobId: string, deviceId: string) => `/jobs/${jobId}/catalogue/devices/${deviceId}`,
  house: (jobId: string) => `/jobs/${jobId}/house`,
  box: (jobId: string, boxId: string) => `/jobs/${jobId}/box/${boxId}`,
  place: (jobId: string, boxId: string, position: number) => `/jobs/${jobId}/box/${boxId}/choose/${position}`,
  flags: (jobId: string, boxId: string) => `/jobs/${jobId}/box/${boxId}/flags`,
  photos: (jobId: string, boxId: string) => `/jobs/${jobId}/box/${boxId}/photos`,
  wire: (jobId: string, boxId: string) => `/jobs/${jobId}/box/${boxId}/wire`,
  wiring: (jobId: string) => `/jobs/${jobId}/wiring`,
  fit: (jobId: string, boxId?: string) => `/jobs/${jobId}/fit${boxId ? `/${boxId}` : ''}`,
  figures: (jobId: string) => `/jobs/${jobId}/figures`,
  panel: (jobId: string) => `/jobs/${jobId}/panel`,
  history: (jobId: string, boxId?: string) =>
    `/jobs/${jobId}/history${boxId ? `?box=${encodeURIComponent(boxId)}` : ''}`,
  pair: (jobId: string) => `/jobs/${jobId}/pair`,
};
