package leveltally.server.approval;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Dates;
import leveltally.core.approval.Step;
import leveltally.core.marks.MarkKind;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.mail.Letter;
import leveltally.server.mail.Outbox;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** What is said by mail about an approval: asked, reminded, struck, sent back, approved, voided. */
@Component
class Letters {
    private final Outbox outbox;
    private final Rounds rounds;
    private final Deputies deputies;
    private final BankAccounts accounts;
    private final JdbcClient jdbc;

    Letters(Outbox outbox, Rounds rounds, Deputies deputies, BankAccounts accounts, JdbcClient jdbc) {
        this.outbox = outbox;
        this.rounds = rounds;
        this.deputies = deputies;
        this.accounts = accounts;
        this.jdbc = jdbc;
    }

    /** Asks everybody who may answer the step that waits. */
    void asked(Batch batch, Round round, Roster roster, Instant now) {
        Step step = round.answering().step();
        String again = round.number() > 0 ? " again" : "";
        outbox.put(
                roster.asked(round.answering()),
                new Letter(
                        "Asked" + again + ": " + batch.name(),
                        List.of(roster.name(round.sentBy()) + " asks" + again + " for approval of the batch “"
                                + batch.name() + "”. It waits for you at the step “" + step.name() + "” of the route “"
                                + round.route() + "”, because " + round.why() + "."),
                        facts(batch),
                        "Look at the batch",
                        approval(batch)),
                now);
    }

    /** Asks those again who have not answered. */
    void reminded(Batch batch, Round round, Roster roster, Instant now) {
        outbox.put(
                roster.asked(round.answering()),
                new Letter(
                        "Reminder: " + batch.name(),
                        List.of("The batch “" + batch.name() + "” still waits for you at the step “"
                                + round.answering().step().name() + "”."),
                        facts(batch),
                        "Look at the batch",
                        approval(batch)),
                now);
    }

    /** Tells a step's second line that they may answer now as well. */
    void escalated(Batch batch, Round round, Roster roster, Instant now) {
        Set<PersonId> secondLine = new HashSet<>(round.answering().step().secondLine());
        secondLine.retainAll(roster.asked(round.answering()));
        outbox.put(
                secondLine,
                new Letter(
                        "Asked, as nobody answered: " + batch.name(),
                        List.of("Nobody has answered the step “"
                                + round.answering().step().name() + "” of the batch “" + batch.name()
                                + "” in time, so you may answer it as well. Whoever was asked first still may."),
                        facts(batch),
                        "Look at the batch",
                        approval(batch)),
                now);
    }

    void sentBack(Actor by, Batch batch, Round round, String reason, List<String> notes) {
        outbox.put(
                others(by, preparers(round)),
                new Letter(
                        "Sent back: " + batch.name(),
                        List.of(by.name() + " sent the batch “" + batch.name() + "” back: " + reason),
                        notes,
                        "Change the batch",
                        page(batch)),
                by.now());
    }

    void struck(Actor by, Batch batch, Round round, List<String> payments, String reason, boolean nothingLeft) {
        outbox.put(
                others(by, preparers(round)),
                new Letter(
                        "Struck from " + batch.name(),
                        List.of(
                                by.name() + " struck "
                                        + (payments.size() == 1 ? "a payment" : payments.size() + " payments")
                                        + " from the batch “" + batch.name() + "”: " + reason,
                                nothingLeft
                                        ? "Nothing is left in it, so it closed as withdrawn; its invoices are free again."
                                        : "The other payments and what was approved stand."),
                        payments,
                        "Look at the batch",
                        page(batch)),
                by.now());
    }

    void approved(Actor by, Batch batch, Round round, Roster roster) {
        List<String> facts = new ArrayList<>(facts(batch));
        round.given()
                .forEach(one -> facts.add("approved by " + roster.name(one.by())
                        + (one.by().equals(one.of()) ? "" : " for " + roster.name(one.of()))));
        outbox.put(
                others(by, preparers(round)),
                new Letter(
                        "Approved: " + batch.name(),
                        List.of("The batch “" + batch.name() + "” is approved. Its checks can be printed."),
                        facts,
                        "Look at the batch",
                        page(batch)),
                by.now());
    }

    /** An approval that was asked for or given counts no more, because the batch was changed or withdrawn. */
    @EventListener
    @Transactional
    public void voided(Batches.ApprovalVoided told) {
        Actor by = told.by();
        Roster roster = deputies.roster(by.today());
        for (Round round : rounds.of(List.of(told.batch().id()), by.today())) {
            Set<PersonId> concerned = new HashSet<>(round.progress().approvers());
            if (round.waiting().isPresent()) {
                concerned.addAll(roster.asked(round.answering()));
            }
            concerned.add(told.batch().preparedBy());
            String given = round.given().isEmpty()
                    ? "Nobody had approved it yet."
                    : "What was approved counts no more: "
                            + round.given().stream()
                                    .map(one -> roster.name(one.by()))
                                    .distinct()
                                    .collect(Collectors.joining(", "))
                            + " had approved it.";
            outbox.put(
                    others(by, concerned),
                    new Letter(
                            "Approval voided: " + told.batch().name(),
                            List.of(
                                    by.name() + " changed the batch “"
                                            + told.batch().name() + "” after it was sent for approval: " + told.what()
                                            + ".",
                                    given,
                                    "There is nothing to answer until it is sent again."),
                            List.of(),
                            "Look at the batch",
                            page(told.batch())),
                    by.now());
        }
    }

    private static Set<PersonId> preparers(Round round) {
        Set<PersonId> people = new HashSet<>(round.hands());
        people.add(round.sentBy());
        return people;
    }

    private static Set<PersonId> others(Actor by, Collection<PersonId> people) {
        Set<PersonId> others = new HashSet<>(people);
        others.remove(by.person());
        return others;
    }

    private static String approval(Batch batch) {
        return "/approval/" + batch.id().value();
    }

    private static String page(Batch batch) {
        return "/batches/" + batch.id().value();
    }

    private List<String> facts(Batch batch) {
        BankAccount account = accounts.get(batch.account());
        record Sum(int payments, long minor) {}
        Sum sum = jdbc.sql(
                        "SELECT COUNT(*) AS items, COALESCE(SUM(amount_minor), 0) AS amount_minor FROM claim WHERE batch_id = ?")
                .param(batch.id().value())
                .query((r, n) -> new Sum(r.getInt("items"), r.getLong("amount_minor")))
                .single();
        List<String> facts = new ArrayList<>();
        facts.add(Money.ofMinor(sum.minor(), account.currency()) + " " + account.currency() + " in " + sum.payments()
                + (sum.payments() == 1 ? " payment" : " payments"));
        facts.add("from " + account.name() + ", by " + batch.method().words() + " of "
                + Dates.inWords(batch.checkDate()));
        jdbc.sql("""
                        SELECT m.kind, COUNT(DISTINCT m.claim_id) AS marked FROM approval_mark m
                        JOIN claim c ON c.id = m.claim_id AND c.batch_id = m.batch_id
                        WHERE m.batch_id = ? AND m.round = ? GROUP BY m.kind ORDER BY m.kind
                        """).params(batch.id().value(), batch.approvalRound()).query(r -> {
            int count = r.getInt("marked");
            facts.add(count + (count == 1 ? " payment" : " payments") + " marked: "
                    + MarkKind.valueOf(r.getString("kind")).words());
        });
        return facts;
    }
}
