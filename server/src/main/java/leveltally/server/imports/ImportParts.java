package leveltally.server.imports;

import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.util.Enumeration;
import java.util.NoSuchElementException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** What was sent, part by part, each read when it is needed. */
@Component
class ImportParts {
    private final JdbcClient jdbc;

    ImportParts(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    int count(long job) {
        return jdbc.sql("SELECT COUNT(*) FROM import_part WHERE job_id = :job")
                .param("job", job)
                .query(Integer.class)
                .single();
    }

    byte[] part(long job, int position) {
        return jdbc.sql("SELECT content FROM import_part WHERE job_id = :job AND position = :position")
                .param("job", job)
                .param("position", position)
                .query((r, n) -> r.getBytes("content"))
                .single();
    }

    /** All parts as one stream. */
    InputStream all(long job) {
        int count = count(job);
        return new SequenceInputStream(new Enumeration<InputStream>() {
            private int next;

            @Override
            public boolean hasMoreElements() {
                return next < count;
            }

            @Override
            public InputStream nextElement() {
                if (next >= count) {
                    throw new NoSuchElementException();
                }
                return new ByteArrayInputStream(part(job, next++));
            }
        });
    }
}
