/** Endings of music: what comes first is nearer to what was recorded. Common practice, no source. */
export const MUSIC = 'wav aiff flac ape m4a opus ogg aac mp3 wma'.split(' ');
/** Endings of films. */
export const FILMS = 'mkv mp4 m4v avi mov webm mpg mpeg ts m2ts wmv ogv'.split(' ');
/** Endings of subtitles that stand by themselves. */
export const SUBTITLES = 'srt ass ssa sub vtt sup'.split(' ');
