import { netsOf } from '#core/survey/roundNetwork';

/** Reckons the nets of a survey apart from the page: a net of nonsense takes seconds. */
self.onmessage = ({ data }: MessageEvent<Parameters<typeof netsOf>>) => self.postMessage(netsOf(...data));
