package leveltally.server.frame;

import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Ids for what is written in thousands, so that inserts need no look-up of their own. */
@Component
public class WorkIds {
    private static final long BLOCK = 100_000;

    private final JdbcClient jdbc;

    WorkIds(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A supply for one deed; what it does not use is never used. */
    public Supply supply() {
        return new Supply();
    }

    /** Ids one after the other; not to be shared between threads. */
    public final class Supply {
        private long next;
        private long end;

        private Supply() {}

        public long next() {
            if (next == end) {
                next = jdbc.sql("SELECT NEXT VALUE FOR work_seq")
                        .query(Long.class)
                        .single();
                end = next + BLOCK;
            }
            return next++;
        }
    }
}
