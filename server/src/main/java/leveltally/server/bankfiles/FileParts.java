package leveltally.server.bankfiles;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The bytes of files, part by part. */
@Component
class FileParts {
    /** As the database holds them to it. */
    private static final int PART = 1 << 20;

    private final JdbcClient jdbc;

    FileParts(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void keep(long file, InputStream content) {
        try (content) {
            int position = 0;
            for (byte[] part = content.readNBytes(PART); part.length > 0; part = content.readNBytes(PART)) {
                jdbc.sql("INSERT INTO bank_file_part (file_id, position, content) VALUES (?, ?, ?)")
                        .params(file, ++position, part)
                        .update();
            }
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    /** The bytes as they were made; each part is asked for when it is read. */
    InputStream open(long file) {
        return new InputStream() {
            private int position;
            private InputStream part = InputStream.nullInputStream();

            @Override
            public int read() throws IOException {
                byte[] one = new byte[1];
                return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
            }

            @Override
            public int read(byte[] into, int from, int most) throws IOException {
                if (most == 0) {
                    return 0;
                }
                int read = part.read(into, from, most);
                while (read < 0) {
                    byte[] next = jdbc.sql("SELECT content FROM bank_file_part WHERE file_id = ? AND position = ?")
                            .params(file, ++position)
                            .query((r, n) -> r.getBytes("content"))
                            .optional()
                            .orElse(null);
                    if (next == null) {
                        return -1;
                    }
                    part = new ByteArrayInputStream(next);
                    read = part.read(into, from, most);
                }
                return read;
            }
        };
    }
}
