package leveltally.server.paper;

import java.util.Map;
import leveltally.core.checks.SeriesId;
import leveltally.core.paper.Alignment;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.checks.Series;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** By how much printers draw beside the place, remembered for each with the stock of each series. */
@Service
public class Alignments {
    /** The one printer there is. */
    private static final String PRINTER = "stand-in";

    private final JdbcClient jdbc;
    private final Series series;
    private final AuditTrail audit;

    Alignments(JdbcClient jdbc, Series series, AuditTrail audit) {
        this.jdbc = jdbc;
        this.series = series;
        this.audit = audit;
    }

    @Transactional(readOnly = true)
    public Alignment of(SeriesId id) {
        return jdbc.sql("SELECT right_tenths, down_tenths FROM printer_alignment WHERE series_id = :series"
                        + " AND printer = :printer")
                .param("series", id.value())
                .param("printer", PRINTER)
                .query((r, n) -> new Alignment(r.getInt("right_tenths"), r.getInt("down_tenths")))
                .optional()
                .orElse(Alignment.NONE);
    }

    @Transactional
    void set(Actor by, SeriesId id, Alignment alignment) {
        by.mayDo(Deed.ALIGN_PRINTER);
        series.lock(series.get(id).way());
        Alignment before = of(id);
        if (before.equals(alignment)) {
            return;
        }
        jdbc.sql("INSERT INTO printer_alignment (series_id, printer, right_tenths, down_tenths)"
                        + " VALUES (:series, :printer, :right, :down)"
                        + " ON DUPLICATE KEY UPDATE right_tenths = :right, down_tenths = :down")
                .param("series", id.value())
                .param("printer", PRINTER)
                .param("right", alignment.right())
                .param("down", alignment.down())
                .update();
        audit.record(
                by,
                "align printer",
                "series " + id.value(),
                Map.of("right", alignment.right() / 10.0 + " mm", "down", alignment.down() / 10.0 + " mm"));
    }
}
