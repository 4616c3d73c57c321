/**
 * A bank to practise on: it speaks only files, has its own port and its own data, and knows nothing of the application beside
 * which it ships. What it reads it reads by the description of a layout alone.
 */
@org.jspecify.annotations.NullMarked
package leveltally.practicebank;
