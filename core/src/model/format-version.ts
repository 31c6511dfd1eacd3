/** The version of the project format that this program writes. In a file of its own: whoever writes JSON needs no reader. */
export const FORMAT_VERSION = 17;
