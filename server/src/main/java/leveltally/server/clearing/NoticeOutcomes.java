package leveltally.server.clearing;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FileState;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.VendorId;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.clearing.NoticeRows.Kind;
import leveltally.server.clearing.NoticeRows.Told;
import leveltally.server.clearing.NoticeRows.Waiting;
import leveltally.server.electronic.Announcements;
import leveltally.server.electronic.Carried;
import leveltally.server.electronic.CarriedPayments;
import leveltally.server.frame.Seal;
import leveltally.server.vendors.Place;
import leveltally.server.vendors.VendorChanges;
import leveltally.server.vendors.Vendors;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.springframework.stereotype.Component;

/** What comes of what a bank says of a payment afterwards: a reversal, a refused payment of a file, a proposed change. */
@Component
class NoticeOutcomes {
    private static final int SEQUENCE_DIGITS = 7;

    private final CarriedPayments payments;
    private final Announcements announcements;
    private final BankAnswers answers;
    private final Undoing undoing;
    private final VendorChanges changes;
    private final Vendors vendors;
    private final Seal seal;

    NoticeOutcomes(
            CarriedPayments payments,
            Announcements announcements,
            BankAnswers answers,
            Undoing undoing,
            VendorChanges changes,
            Vendors vendors,
            Seal seal) {
        this.payments = payments;
        this.announcements = announcements;
        this.answers = answers;
        this.undoing = undoing;
        this.changes = changes;
        this.vendors = vendors;
        this.seal = seal;
    }

    /**
     * Does what a notice asks for.
     *
     * @return what came of it, in words
     * @throws Refusal when nothing can come of it by itself
     */
    String of(Actor by, Waiting notice) {
        Long payment = notice.told().payment();
        Carried carried = payment == null
                ? null
                : payments.of(List.of(new PaymentId(payment))).stream()
                        .findFirst()
                        .orElse(null);
        Optional<Announcements.Traced> announced = carried == null ? announcedBy(notice) : Optional.empty();
        if (announced.isPresent()) {
            return ofAnnouncement(by, notice.told(), announced.get());
        }
        if (carried == null) {
            throw Refusal.conflict(
                    "no-such-payment", "No payment of this account is called so. Ask the bank what it means.");
        }
        return notice.told().kind() == Kind.RETURNED
                ? returned(by, notice.told(), carried)
                : changed(by, notice.told(), carried);
    }

    /** Whether it speaks of an announcement: those carry trace numbers of their own. */
    private Optional<Announcements.Traced> announcedBy(Waiting notice) {
        String trace = notice.told().names();
        return trace.matches("\\d{7,15}")
                ? announcements.traced(
                        notice.account(), Integer.parseInt(trace.substring(trace.length() - SEQUENCE_DIGITS)))
                : Optional.empty();
    }

    private String ofAnnouncement(Actor by, Told told, Announcements.Traced announced) {
        String why = told.code() + ": " + told.words();
        if (told.kind() == Kind.RETURNED) {
            announcements.sentBack(announced.id(), why);
            return "The announcement " + announced.called()
                    + " came back: nothing goes to that account until its bank details are others.";
        }
        return proposed(
                by,
                told,
                announced.vendor(),
                announced.remitTo(),
                announced.bankKey(),
                "the announcement " + announced.called());
    }

    private String returned(Actor by, Told told, Carried carried) {
        if (isOfAnotherAmount(told, carried)) {
            throw Refusal.conflict(
                    "another-amount",
                    "The bank sends back another amount than the " + carried.amount() + " of " + carried.called()
                            + ". Ask it what it means.");
        }
        String why = told.code() + ": " + told.words();
        Long file = carried.file();
        if (carried.state() == PaymentState.PREPARED && file != null) {
            BankAnswers.RefusedItem item = new BankAnswers.RefusedItem(carried.called(), why);
            if (carried.answer() == FileState.MADE) {
                // whoever sends single payments back took the others
                answers.accepted(by, file, "it sent single payments back", List.of(item));
            } else {
                answers.refusedAfterwards(by, file, List.of(item));
            }
            return carried.called() + " was not in the ledger yet: it waits for another file, or is taken out.";
        }
        if (!carried.state().isInTheLedger()) {
            throw Refusal.conflict(
                    "not-in-the-ledger",
                    carried.called() + " is " + carried.state().words()
                            + " already. If the money came twice, ask the bank.");
        }
        return reversed(by, Map.of(carried.payment(), new Back(told, carried))).get(carried.payment());
    }

    /** A payment in the ledger, with the notice that sends it back. */
    record Back(Told told, Carried carried) {
        /** Whether it can be reversed without looking at anything else. */
        boolean isPlain() {
            return told.kind() == Kind.RETURNED && carried.state().isInTheLedger() && !isOfAnotherAmount(told, carried);
        }

        private String why() {
            return told.code() + ": " + told.words();
        }
    }

    /**
     * Reverses payments that came back, in one deed, all or none.
     *
     * @return what came of each, in words
     * @throws Refusal when one of them cannot be reversed
     */
    Map<PaymentId, String> reversed(Actor by, Map<PaymentId, Back> all) {
        Map<PaymentId, Wanted.SentBack> wanted = new LinkedHashMap<>();
        Map<PaymentId, String> became = new HashMap<>();
        all.forEach((payment, back) -> {
            wanted.put(
                    payment,
                    new Wanted.SentBack(
                            back.told().code() + " " + back.told().names(), "The bank sent it back, " + back.why()));
            became.put(payment, back.carried().called() + " was reversed, and its invoices are open again.");
        });
        undoing.undo(by, Wanted.sentBack(wanted, by.today()), "The bank sent back what is named here");
        return became;
    }

    private static boolean isOfAnotherAmount(Told told, Carried carried) {
        Long minor = told.minor();
        return minor != null && minor != carried.amount().minor();
    }

    private String changed(Actor by, Told told, Carried carried) {
        String sentTo = seal.fingerprint(carried.account().canonical());
        return proposed(by, told, carried.vendor(), carried.remitTo(), sentTo, carried.called());
    }

    /**
     * Proposes the account as the bank says it is right.
     *
     * @param sentTo the account that was used, by its fingerprint
     * @param what was sent there, in words
     */
    private String proposed(Actor by, Told told, VendorId vendor, long remitTo, String sentTo, String what) {
        String right = told.right();
        if (right == null) {
            throw Refusal.conflict(
                    "nothing-of-the-account",
                    "The bank corrects " + told.words() + ", which no account number says. Look at the vendor's page.");
        }
        Place place = vendors.places(List.of(remitTo)).get(remitTo);
        if (!place.remitTo().bankKey().equals(sentTo)) {
            throw Refusal.conflict(
                    "changed-since",
                    "The bank details of " + place.remitTo().payee() + " were changed since " + what
                            + " went there. Look whether they are right.");
        }
        changes.propose(
                by,
                vendor,
                new VendorChanges.Wanted(
                        remitTo,
                        place.remitTo().payee(),
                        place.remitTo().lines(),
                        place.postalCode(),
                        false,
                        BankDetails.of(seal.open(right)),
                        "The bank says of " + what + ": " + told.code() + ", " + told.words()));
        return "Other bank details were proposed for " + place.remitTo().payee() + "; a second person confirms them.";
    }
}
