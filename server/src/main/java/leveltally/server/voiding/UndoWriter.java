package leveltally.server.voiding;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import leveltally.core.ledger.EntryId;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.voiding.UndoPlan;
import leveltally.server.audit.AuditTrail;
import leveltally.server.checks.BankEvents;
import leveltally.server.invoices.Prepayments;
import leveltally.server.invoices.Settlements;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.outside.CardStatements;
import leveltally.server.payments.Payment;
import leveltally.server.payments.Payments;
import org.springframework.stereotype.Component;

/** Writes what plans of undoing say: whatever their number in as many statements, but for those that cancel or unmatch. */
@Component
class UndoWriter {
    private final Ledger ledger;
    private final Settlements settlements;
    private final Prepayments prepayments;
    private final CardStatements statements;
    private final Payments payments;
    private final Stops stops;
    private final BankEvents told;
    private final AuditTrail audit;

    UndoWriter(
            Ledger ledger,
            Settlements settlements,
            Prepayments prepayments,
            CardStatements statements,
            Payments payments,
            Stops stops,
            BankEvents told,
            AuditTrail audit) {
        this.ledger = ledger;
        this.settlements = settlements;
        this.prepayments = prepayments;
        this.statements = statements;
        this.payments = payments;
        this.stops = stops;
        this.told = told;
        this.audit = audit;
    }

    /** @param reason as it is kept of this one */
    record Said(Looked one, String reason) {
        Payment payment() {
            return one.payment();
        }

        UndoPlan plan() {
            return one.planned();
        }

        LocalDate on() {
            return plan().entry().ledgerDate();
        }
    }

    /**
     * Writes for each its entry, the mirrored rows, what is cancelled, the payment's step, and what the bank hears.
     *
     * @return the entries that undo them
     */
    Map<PaymentId, EntryId> write(Actor by, List<Said> all) {
        all.forEach(said -> prepayments.unmatch(by, said.plan().ended(), said.on()));
        Map<PaymentId, EntryId> entries = new LinkedHashMap<>();
        all.forEach(said -> entries.put(said.payment().id(), entry(by, said)));
        settle(all, entries);
        List<PaymentId> ids = List.copyOf(entries.keySet());
        statements.lose(all.stream()
                .filter(said -> said.one().statement() != null)
                .map(said -> said.payment().id())
                .toList());
        for (Said said : all) {
            PaymentId id = said.payment().id();
            payments.undo(by, id, said.plan().becomes(), said.one().name(), entries.get(id), said.on(), said.reason());
        }
        stops.end(by, ids, Stops.Ended.UNDONE);
        told.tellVoids(all.stream()
                .flatMap(said ->
                        Stream.ofNullable(said.one().check()).map(check -> new BankEvents.Voided(check, said.on())))
                .toList());
        audit.record(by, all.stream().map(UndoWriter::done).toList());
        return entries;
    }

    private EntryId entry(Actor by, Said said) {
        Payment payment = said.payment();
        return ledger.write(
                by,
                EntryKind.VOID,
                said.plan().entry(),
                EntryLinks.ofVoid(
                        payment.batch().value(),
                        payment.id().value(),
                        Objects.requireNonNull(payment.postedEntry()).value()));
    }

    /** What was settled is open again before anything of it is cancelled. */
    private void settle(List<Said> all, Map<PaymentId, EntryId> entries) {
        List<Settlements.Undone> undone = new ArrayList<>();
        all.forEach(said -> undone.add(new Settlements.Undone(
                said.plan().mirrored(), said.on(), entries.get(said.payment().id()))));
        settlements.undo(undone);
        for (Said said : all) {
            EntryId entry = entries.get(said.payment().id());
            settlements.cancel(said.plan().cancelled(), said.on(), entry);
            prepayments.end(said.plan().ended(), said.on(), entry);
        }
    }

    private static AuditTrail.Done done(Said said) {
        Looked one = said.one();
        return new AuditTrail.Done(
                said.plan().handedOver()
                        ? "hand over as unclaimed"
                        : one.check() == null ? "reverse payment" : "void check",
                one.subject(),
                Map.of(
                        "date",
                        said.on().toString(),
                        "reason",
                        said.reason(),
                        "amount",
                        said.payment().amount().plain()));
    }
}
