package leveltally.server.batches;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.batches.DraftClaim;
import leveltally.core.batches.DraftLine;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.WorkIds;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** The life of a draft, step by step: the claims each step changed, as they were before and after. */
@Component
class EditLog {
    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final WorkIds ids;

    EditLog(JdbcClient jdbc, JsonMapper json, WorkIds ids) {
        this.jdbc = jdbc;
        this.json = json;
        this.ids = ids;
    }

    /** {@code DROPPED}: undone, then something else was done instead. */
    enum State {
        DONE,
        UNDONE,
        DROPPED
    }

    /** One step to undo or to do again. */
    record Step(long id, String what, List<DraftClaim> before, List<DraftClaim> after) {}

    /** What changed since the batch was made. */
    record Entry(int step, String what, String who, Instant at, State state, long amountMinor) {}

    private record ClaimImage(long id, long vendor, long remitTo, boolean apart, String note, List<LineImage> lines) {}

    private record LineImage(
            String kind,
            long id,
            @Nullable Long typed,
            @Nullable String currency,
            boolean byHand,
            boolean hidden,
            boolean own) {}

    /** Notes a step that was done; what was undone before it cannot be done again. */
    void record(Actor by, long batch, String what, List<DraftClaim> before, List<DraftClaim> after, long amountMinor) {
        jdbc.sql("UPDATE batch_edit SET state = 'DROPPED' WHERE batch_id = :batch AND state = 'UNDONE'")
                .param("batch", batch)
                .update();
        jdbc.sql("""
                        INSERT INTO batch_edit (id, batch_id, step, what, person_id, at, state, before_image, after_image,
                          amount_minor)
                        SELECT :id, :batch, COALESCE(MAX(step), 0) + 1, :what, :person, :at, 'DONE',
                          :before, :after, :amount FROM batch_edit WHERE batch_id = :batch
                        """)
                .param("id", ids.supply().next())
                .param("batch", batch)
                .param("what", what.substring(0, Math.min(200, what.length())))
                .param("person", by.person().value())
                .param("at", java.sql.Timestamp.from(by.now()))
                .param("before", written(before))
                .param("after", written(after))
                .param("amount", amountMinor)
                .update();
    }

    Optional<Step> last(long batch, State state) {
        String order = state == State.DONE ? "DESC" : "ASC";
        return jdbc.sql("SELECT id, what, before_image, after_image FROM batch_edit WHERE batch_id = :batch"
                        + " AND state = :state ORDER BY step " + order + " LIMIT 1")
                .param("batch", batch)
                .param("state", state.name())
                .query((r, n) -> new Step(
                        r.getLong("id"),
                        r.getString("what"),
                        read(r.getString("before_image")),
                        read(r.getString("after_image"))))
                .optional();
    }

    void turn(Step step, State state) {
        jdbc.sql("UPDATE batch_edit SET state = :state WHERE id = :id")
                .param("state", state.name())
                .param("id", step.id())
                .update();
    }

    /** Newest first. */
    List<Entry> entries(long batch) {
        return jdbc.sql("""
                        SELECT e.step, e.what, p.name, e.at, e.state, e.amount_minor FROM batch_edit e
                        JOIN person p ON p.id = e.person_id WHERE e.batch_id = :batch ORDER BY e.step DESC LIMIT 200
                        """)
                .param("batch", batch)
                .query((r, n) -> new Entry(
                        r.getInt("step"),
                        r.getString("what"),
                        r.getString("name"),
                        r.getTimestamp("at").toInstant(),
                        State.valueOf(r.getString("state")),
                        r.getLong("amount_minor")))
                .list();
    }

    private String written(List<DraftClaim> claims) {
        List<ClaimImage> images = new ArrayList<>();
        for (DraftClaim claim : claims) {
            images.add(new ClaimImage(
                    java.util.Objects.requireNonNull(claim.id()).value(),
                    claim.vendor().value(),
                    claim.remitTo(),
                    claim.apart(),
                    claim.stubNote(),
                    claim.lines().stream()
                            .map(line -> {
                                Money typed = line.typed();
                                return new LineImage(
                                        line.kind().name(),
                                        line.id().value(),
                                        typed == null ? null : typed.minor(),
                                        typed == null ? null : typed.currency().getCurrencyCode(),
                                        line.byHand(),
                                        line.hidden(),
                                        line.ownCheck());
                            })
                            .toList()));
        }
        return json.writeValueAsString(images);
    }

    private List<DraftClaim> read(String text) {
        List<DraftClaim> claims = new ArrayList<>();
        for (ClaimImage image : json.readValue(text, ClaimImage[].class)) {
            claims.add(new DraftClaim(
                    new ClaimId(image.id()),
                    new VendorId(image.vendor()),
                    image.remitTo(),
                    image.apart(),
                    image.note(),
                    image.lines().stream()
                            .map(line -> new DraftLine(
                                    ClaimLine.Kind.valueOf(line.kind()),
                                    new InvoiceId(line.id()),
                                    line.typed() == null ? null : Money.ofMinor(line.typed(), line.currency()),
                                    line.byHand(),
                                    line.hidden(),
                                    line.own()))
                            .toList()));
        }
        return claims;
    }
}
