package leveltally.server.checks;

import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Stock;
import leveltally.core.checks.StockBoxes;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.WorkIds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The boxes of numbered stock of each series. */
@Service
public class StockRoom {
    private final JdbcClient jdbc;
    private final Series series;
    private final WorkIds ids;
    private final AuditTrail audit;

    StockRoom(JdbcClient jdbc, Series series, WorkIds ids, AuditTrail audit) {
        this.jdbc = jdbc;
        this.series = series;
        this.ids = ids;
        this.audit = audit;
    }

    @Transactional(readOnly = true)
    public StockBoxes of(SeriesId id) {
        return new StockBoxes(
                jdbc.sql("SELECT id, first_number, last_number, opened_on FROM stock_box WHERE series_id = :series")
                        .param("series", id.value())
                        .query((r, n) -> new StockBoxes.Box(
                                r.getLong("id"),
                                r.getLong("first_number"),
                                r.getLong("last_number"),
                                r.getDate("opened_on") != null))
                        .list());
    }

    /** Takes down a box that came in. */
    @Transactional
    void receive(Actor by, SeriesId id, long first, long last) {
        by.mayDo(Deed.KEEP_STOCK);
        NumberSeries numbers = locked(id);
        of(id).mustTake(first, last, numbers.range());
        jdbc.sql("INSERT INTO stock_box (id, series_id, first_number, last_number, received_on, received_by)"
                        + " VALUES (:id, :series, :first, :last, :on, :by)")
                .param("id", ids.supply().next())
                .param("series", id.value())
                .param("first", first)
                .param("last", last)
                .param("on", by.today())
                .param("by", by.person().value())
                .update();
        audit.record(by, "receive box of stock", "series " + id.value(), Map.of("first", first, "last", last));
    }

    /** Takes down that a box is being used; opening it once more changes nothing. */
    @Transactional
    void open(Actor by, SeriesId id, long box) {
        by.mayDo(Deed.KEEP_STOCK);
        locked(id);
        List<StockBoxes.Box> found =
                of(id).boxes().stream().filter(one -> one.id() == box).toList();
        if (found.isEmpty()) {
            throw Refusal.notFound("no-box", "There is no such box of this series.");
        }
        if (found.get(0).opened()) {
            return;
        }
        jdbc.sql("UPDATE stock_box SET opened_on = :on, opened_by = :by WHERE id = :id")
                .param("on", by.today())
                .param("by", by.person().value())
                .param("id", box)
                .update();
        audit.record(
                by,
                "open box of stock",
                "series " + id.value(),
                Map.of("first", found.get(0).first(), "last", found.get(0).last()));
    }

    private NumberSeries locked(SeriesId id) {
        NumberSeries numbers = series.lock(series.get(id).way());
        if (numbers.stock() != Stock.NUMBERED) {
            throw Refusal.conflict(
                    "blank-stock", "Blank stock has no numbers on it, so its boxes are all alike and not kept here.");
        }
        return numbers;
    }

    /** What is known of the stock of a series, to be looked at. */
    @Transactional(readOnly = true)
    StockView view(Actor by, SeriesId id) {
        by.mayDo(Deed.READ);
        long next = series.get(id).nextNumber();
        StockBoxes boxes = of(id);
        return new StockView(
                boxes.boxes().stream()
                        .map(box -> new StockView.BoxView(
                                box.id(), box.first(), box.last(), box.opened(), box.last() < next))
                        .toList(),
                boxes.gaps().stream()
                        .map(gap -> new StockView.GapView(gap.first(), gap.last()))
                        .toList(),
                boxes.left(next),
                boxes.foretold(next),
                Deed.KEEP_STOCK.allowedTo(by.roles()));
    }
}
