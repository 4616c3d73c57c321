package leveltally.server.exchange;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.util.List;
import java.util.OptionalLong;

/** A connection to where a bank's files lie. */
interface Talk extends Closeable {
    /** A file that lies there. */
    record Lying(String name, long bytes, Instant writtenAt) {}

    /** The files in a folder, not what lies below it. */
    List<Lying> list(String folder) throws IOException;

    /** How many bytes it has; empty where there is none. */
    OptionalLong size(String path) throws IOException;

    /** @throws IOException when it has more than so many bytes, too */
    byte[] read(String path, int most) throws IOException;

    /** Its bytes one after the other. */
    InputStream open(String path) throws IOException;

    /** Lays a file there, over what an earlier attempt left under this name. */
    void write(String path, InputStream content) throws IOException;

    /** Gives it another name, which nothing has. */
    void rename(String from, String to) throws IOException;
}
