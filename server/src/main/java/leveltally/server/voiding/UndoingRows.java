package leveltally.server.voiding;

import jakarta.persistence.EntityManager;
import java.sql.Timestamp;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.ledger.EntryId;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.voiding.UndoPlan;
import leveltally.server.frame.WorkIds;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Keeps what was asked to be undone, who agreed, and which accounts were chosen. */
@Component
class UndoingRows {
    private final JdbcClient jdbc;
    private final JdbcTemplate plain;
    private final EntityManager entities;
    private final JsonMapper json;
    private final WorkIds ids;

    UndoingRows(JdbcClient jdbc, JdbcTemplate plain, EntityManager entities, JsonMapper json, WorkIds ids) {
        this.jdbc = jdbc;
        this.plain = plain;
        this.entities = entities;
        this.json = json;
        this.ids = ids;
    }

    /** Something that waits for a second person. */
    record Question(long id, UndoingKind kind, Wanted wanted, String reason, PersonId askedBy) {}

    /** Writes down what is asked for; done at once, or waiting for a second person. */
    long ask(Actor by, UndoingKind kind, Wanted wanted, boolean byTwo, String reason) {
        long id = ids.supply().next();
        jdbc.sql("""
                        INSERT INTO undoing (id, kind, reason, content, by_two, state, asked_by, asked_at, asked_on, decided_at)
                        VALUES (:id, :kind, :reason, :content, :two, :state, :by, :at, :on, :decided)
                        """)
                .param("id", id)
                .param("kind", kind.name())
                .param("reason", reason)
                .param("content", json.writeValueAsString(wanted))
                .param("two", byTwo)
                .param("state", (byTwo ? UndoingState.ASKED : UndoingState.DONE).name())
                .param("by", by.person().value())
                .param("at", Timestamp.from(by.now()))
                .param("on", by.today())
                .param("decided", byTwo ? null : Timestamp.from(by.now()))
                .update();
        jdbc.sql("INSERT INTO undoing_payment (undoing_id, payment_id, waiting_payment_id)"
                        + " SELECT :id, p.id, IF(:two, p.id, NULL) FROM payment p WHERE p.id IN (:payments)")
                .param("id", id)
                .param("two", byTwo)
                .param(
                        "payments",
                        wanted.payments().stream().map(Wanted.One::payment).toList())
                .update();
        return id;
    }

    /** @throws Refusal when a second person is waited for over one of them */
    void mustNotWait(Collection<PaymentId> payments) {
        jdbc.sql("SELECT p.payee FROM undoing_payment x JOIN payment p ON p.id = x.payment_id"
                        + " WHERE x.waiting_payment_id IN (:payments) LIMIT 1")
                .param("payments", payments.stream().map(PaymentId::value).toList())
                .query(String.class)
                .optional()
                .ifPresent(payee -> {
                    throw Refusal.conflict(
                            "asked-already",
                            "Undoing the payment to " + payee
                                    + " waits for a second person already. Have it agreed to, or take it back first.");
                });
    }

    /** @throws Refusal when nothing of that id waits */
    Question lockWaiting(long id) {
        return jdbc.sql(
                        "SELECT id, kind, content, reason, asked_by FROM undoing WHERE id = :id AND state = :asked FOR UPDATE")
                .param("id", id)
                .param("asked", UndoingState.ASKED.name())
                .query((r, n) -> new Question(
                        r.getLong("id"),
                        UndoingKind.valueOf(r.getString("kind")),
                        json.readValue(r.getString("content"), Wanted.class),
                        r.getString("reason"),
                        new PersonId(r.getLong("asked_by"))))
                .optional()
                .orElseThrow(() -> Refusal.conflict(
                        "decided-already", "This waits for nobody any more. Look at the payments again."));
    }

    void decide(Actor by, long id, UndoingState state, String why) {
        jdbc.sql("UPDATE undoing SET state = ?, decided_by = ?, decided_at = ?, decided_why = ? WHERE id = ?")
                .params(state.name(), by.person().value(), Timestamp.from(by.now()), why, id)
                .update();
        jdbc.sql("UPDATE undoing_payment SET waiting_payment_id = NULL WHERE undoing_id = ?")
                .params(id)
                .update();
    }

    /** Everyone who prepared one of the payments, or entered or released an invoice of its batch (law L7). */
    Set<PersonId> hands(Wanted wanted) {
        return new HashSet<>(jdbc.sql("SELECT DISTINCT h.person_id FROM hand h WHERE h.batch_id IN"
                        + " (SELECT p.batch_id FROM payment p WHERE p.id IN (:payments))")
                .param(
                        "payments",
                        wanted.payments().stream().map(Wanted.One::payment).toList())
                .query((r, n) -> new PersonId(r.getLong("person_id")))
                .list());
    }

    /** What an undoing entry credits to accounts that were chosen (law L4). */
    void chose(long undoing, PaymentId payment, EntryId entry, List<UndoPlan.Chosen> chosen) {
        if (chosen.isEmpty()) {
            return;
        }
        flush();
        WorkIds.Supply supply = ids.supply();
        plain.batchUpdate(
                """
                INSERT INTO undoing_choice (id, undoing_id, payment_id, entry_id, invoice_id, from_account_id, to_account_id,
                  currency, amount_minor) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)
                """,
                chosen.stream()
                        .map(one -> new Object[] {
                            supply.next(),
                            undoing,
                            payment.value(),
                            entry.value(),
                            one.item() == null ? null : one.item().value(),
                            one.from().value(),
                            one.to().value(),
                            one.amount().currency().getCurrencyCode(),
                            one.amount().minor()
                        })
                        .toList());
    }

    /** What was written so far is there for plain statements. */
    void flush() {
        entities.flush();
    }
}
