/** Days at the bank to practise on; in the demo only. */
@NullMarked
package leveltally.server.practice;

import org.jspecify.annotations.NullMarked;
