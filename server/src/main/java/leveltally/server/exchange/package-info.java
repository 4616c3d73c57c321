/** Files on their way to banks and from them: by a folder, by SFTP, or carried by people. */
@NullMarked
package leveltally.server.exchange;

import org.jspecify.annotations.NullMarked;
