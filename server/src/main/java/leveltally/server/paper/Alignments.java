package leveltally.server.paper;

import java.util.Map;
import leveltally.core.checks.SeriesId;
import leveltally.core.paper.Alignment;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printers.PrinterId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.checks.Series;
import leveltally.server.printers.Printers;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** By how much printers draw beside the place, remembered for each with the stock of each series. */
@Service
public class Alignments {
    private final JdbcClient jdbc;
    private final Series series;
    private final Printers printers;
    private final AuditTrail audit;

    Alignments(JdbcClient jdbc, Series series, Printers printers, AuditTrail audit) {
        this.jdbc = jdbc;
        this.series = series;
        this.printers = printers;
        this.audit = audit;
    }

    @Transactional(readOnly = true)
    public Alignment of(SeriesId id, PrinterId printer) {
        return jdbc.sql("SELECT right_tenths, down_tenths FROM printer_alignment WHERE series_id = :series"
                        + " AND printer_id = :printer")
                .param("series", id.value())
                .param("printer", printer.value())
                .query((r, n) -> new Alignment(r.getInt("right_tenths"), r.getInt("down_tenths")))
                .optional()
                .orElse(Alignment.NONE);
    }

    @Transactional
    void set(Actor by, SeriesId id, PrinterId printer, Alignment alignment) {
        by.mayDo(Deed.ALIGN_PRINTER);
        series.lock(series.get(id).way());
        String name = printers.get(printer).name();
        Alignment before = of(id, printer);
        if (before.equals(alignment)) {
            return;
        }
        jdbc.sql("INSERT INTO printer_alignment (series_id, printer_id, right_tenths, down_tenths)"
                        + " VALUES (:series, :printer, :right, :down)"
                        + " ON DUPLICATE KEY UPDATE right_tenths = :right, down_tenths = :down")
                .param("series", id.value())
                .param("printer", printer.value())
                .param("right", alignment.right())
                .param("down", alignment.down())
                .update();
        audit.record(
                by,
                "align printer",
                "series " + id.value(),
                Map.of(
                        "printer",
                        name,
                        "right",
                        alignment.right() / 10.0 + " mm",
                        "down",
                        alignment.down() / 10.0 + " mm"));
    }
}
