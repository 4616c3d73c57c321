package leveltally.core.paper;

/**
 * What is wrong with a layout.
 *
 * @param block which of the part's blocks, from 0; -1 for the part as a whole
 * @param words what and why, for people
 */
public record Finding(Part part, int block, String words) {}
