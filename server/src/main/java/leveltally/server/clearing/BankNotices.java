package leveltally.server.clearing;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FileState;
import leveltally.core.electronic.AchCodes;
import leveltally.core.electronic.AchNotice;
import leveltally.core.electronic.AchNoticeReader;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.BankDetails;
import leveltally.server.audit.AuditTrail;
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
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * What a bank says of single payments after it took their file: one comes back and is reversed, something of an account is
 * otherwise and becomes a proposal. What cannot be dealt with by itself waits, with its reason, and holds up none of the others.
 */
@Service
public class BankNotices {
    private static final int SEQUENCE_DIGITS = 7;
    private static final int AT_ONCE = 1_000;

    private final NoticeRows rows;
    private final CarriedPayments payments;
    private final BankAnswers answers;
    private final Undoing undoing;
    private final VendorChanges changes;
    private final Vendors vendors;
    private final Seal seal;
    private final AuditTrail audit;
    private final TransactionTemplate each;

    private final Announcements announcements;

    BankNotices(
            NoticeRows rows,
            CarriedPayments payments,
            BankAnswers answers,
            Undoing undoing,
            VendorChanges changes,
            Vendors vendors,
            Seal seal,
            AuditTrail audit,
            TransactionTemplate each,
            Announcements announcements) {
        this.announcements = announcements;
        this.rows = rows;
        this.payments = payments;
        this.answers = answers;
        this.undoing = undoing;
        this.changes = changes;
        this.vendors = vendors;
        this.seal = seal;
        this.audit = audit;
        this.each = each;
    }

    /** What came of a file of notices: how many were dealt with, wait, or were told before. */
    public record NoticesRead(int done, int waiting, int again) {
        public String inWords() {
            return done + (done == 1 ? " notice dealt with, " : " notices dealt with, ") + waiting
                    + (waiting == 1 ? " waits" : " wait") + " for somebody, " + again + " told before.";
        }
    }

    /** Notices as they were written down: how many were told, and the ids of those that are new. */
    private record Put(int all, List<Long> fresh) {}

    /** Reads a file of ACH returns and changes, whole or not at all, and deals with what it tells, one by one. */
    public NoticesRead read(Actor by, BankAccountId account, byte[] content) {
        by.mayDo(Deed.RECORD_CLEARING);
        Put put = Objects.requireNonNull(each.execute(status -> put(by, account, content)));
        return dealtWith(by, put.all(), put.fresh());
    }

    /** Deals with these of so many that were told. */
    NoticesRead dealtWith(Actor by, int all, List<Long> fresh) {
        int done = (int) fresh.stream().filter(id -> dealWith(by, id)).count();
        return new NoticesRead(done, fresh.size() - done, all - fresh.size());
    }

    private Put put(Actor by, BankAccountId account, byte[] content) {
        List<AchNotice> notices = new ArrayList<>();
        try {
            AchNoticeReader.read(new ByteArrayInputStream(content), notices::add);
        } catch (IOException inMemory) {
            throw new UncheckedIOException(inMemory);
        }
        List<Long> fresh = new ArrayList<>();
        for (int from = 0; from < notices.size(); from += AT_ONCE) {
            List<AchNotice> some = notices.subList(from, Math.min(notices.size(), from + AT_ONCE));
            Map<Integer, Carried> carried = payments.traced(
                    account, some.stream().map(AchNotice::sequence).toList());
            fresh.addAll(rows.put(
                    by,
                    account,
                    some.stream()
                            .map(notice -> told(account, notice, Optional.ofNullable(carried.get(notice.sequence()))))
                            .toList()));
        }
        audit.record(
                by,
                "read bank notices",
                "bank account " + account.value(),
                Map.of("notices", notices.size(), "new", fresh.size()));
        return new Put(notices.size(), fresh);
    }

    private Told told(BankAccountId account, AchNotice notice, Optional<Carried> carried) {
        Long payment = carried.map(one -> one.payment().value()).orElse(null);
        if (notice instanceof AchNotice.Returned returned) {
            return new Told(
                    Kind.RETURNED,
                    returned.code(),
                    returned.trace(),
                    AchCodes.words(returned.code())
                            + (returned.said().isBlank()
                                    ? ""
                                    : "; " + returned.said().strip()),
                    payment,
                    returned.amount().minor(),
                    returned.amount().currency().getCurrencyCode(),
                    null);
        }
        AchNotice.Changed changed = (AchNotice.Changed) notice;
        return new Told(
                Kind.CHANGED,
                changed.code(),
                changed.trace(),
                AchCodes.words(changed.code()),
                payment,
                null,
                "USD",
                carried.map(Carried::account)
                        .or(() -> announced(account, notice))
                        .flatMap(was -> corrected(was, changed))
                        .map(right -> seal.seal(right.canonical()))
                        .orElse(null));
    }

    /** The account that an announcement went to, as its vendor has it now. */
    private Optional<BankDetails> announced(BankAccountId account, AchNotice notice) {
        return announcements
                .traced(account, notice.sequence())
                .map(one -> vendors.places(List.of(one.remitTo())).get(one.remitTo()))
                .map(Place::bankSealed)
                .map(kept -> BankDetails.of(seal.open(kept)));
    }

    /** The account as it is right; empty where the notice corrects something else. */
    private static Optional<BankDetails> corrected(BankDetails was, AchNotice.Changed changed) {
        if (changed.routing() == null && changed.account() == null && changed.savings() == null) {
            return Optional.empty();
        }
        try {
            return Optional.of(BankDetails.typed(
                    changed.routing() == null ? was.routing() : changed.routing(),
                    changed.account() == null ? was.account() : changed.account(),
                    changed.savings() == null ? was.savings() : changed.savings(),
                    ""));
        } catch (Refusal none) {
            return Optional.empty();
        }
    }

    /** Writes down that the bank sends a transfer back that is in the ledger; answers its id where that is new. */
    @Transactional
    public Optional<Long> putReturned(Actor by, BankAccountId account, Carried carried, String code, String words) {
        return rows
                .put(
                        by,
                        account,
                        List.of(new Told(
                                Kind.RETURNED,
                                code,
                                carried.called(),
                                words,
                                carried.payment().value(),
                                carried.amount().minor(),
                                carried.amount().currency().getCurrencyCode(),
                                null)))
                .stream()
                .findFirst();
    }

    /**
     * Deals with one notice in a transaction of its own.
     *
     * @return whether something came of it; otherwise it waits, and says why
     */
    public boolean dealWith(Actor by, long id) {
        try {
            return Boolean.TRUE.equals(each.execute(status -> {
                Optional<Waiting> waiting = rows.lock(id);
                waiting.ifPresent(one -> rows.done(by, id, "DONE", outcome(by, one)));
                return waiting.isPresent();
            }));
        } catch (Refusal refused) {
            each.executeWithoutResult(status -> rows.stays(id, refused.sentence()));
            return false;
        }
    }

    private String outcome(Actor by, Waiting notice) {
        Long payment = notice.told().payment();
        Carried carried =
                payment == null ? null : payments.of(new PaymentId(payment)).orElse(null);
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
        Place place = vendors.places(List.of(announced.remitTo())).get(announced.remitTo());
        if (!place.remitTo().bankKey().equals(announced.bankKey())) {
            throw Refusal.conflict(
                    "changed-since",
                    "The bank details of " + place.remitTo().payee()
                            + " were changed since they were announced. Look whether they are right.");
        }
        BankDetails right = told.right() == null ? null : BankDetails.of(seal.open(told.right()));
        if (right == null) {
            throw Refusal.conflict(
                    "nothing-of-the-account",
                    "The bank corrects " + told.words() + ", which no account number says. Look at the vendor's page.");
        }
        changes.propose(
                by,
                announced.vendor(),
                new VendorChanges.Wanted(
                        announced.remitTo(),
                        place.remitTo().payee(),
                        place.remitTo().lines(),
                        place.postalCode(),
                        false,
                        right,
                        "The bank says of the announcement " + announced.called() + ": " + why));
        return "Other bank details were proposed for " + place.remitTo().payee() + "; a second person confirms them.";
    }

    private String returned(Actor by, Told told, Carried carried) {
        Long minor = told.minor();
        if (minor != null && minor != carried.amount().minor()) {
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
        undoing.undo(
                by,
                new Wanted(
                        List.of(new Wanted.One(carried.payment().value(), List.of())),
                        by.today(),
                        Wanted.Fate.OPEN,
                        null,
                        told.code() + " " + told.names()),
                "The bank sent it back, " + why);
        return carried.called() + " was reversed, and its invoices are open again.";
    }

    private String changed(Actor by, Told told, Carried carried) {
        String right = told.right();
        if (right == null) {
            throw Refusal.conflict(
                    "nothing-of-the-account",
                    "The bank corrects " + told.words() + ", which no account number says. Look at the vendor's page.");
        }
        Place place = vendors.places(List.of(carried.remitTo())).get(carried.remitTo());
        if (!place.remitTo().bankKey().equals(seal.fingerprint(carried.account().canonical()))) {
            throw Refusal.conflict(
                    "changed-since",
                    "The bank details of " + place.remitTo().payee()
                            + " were changed since this payment went. Look whether they are right.");
        }
        changes.propose(
                by,
                carried.vendor(),
                new VendorChanges.Wanted(
                        carried.remitTo(),
                        place.remitTo().payee(),
                        place.remitTo().lines(),
                        place.postalCode(),
                        false,
                        BankDetails.of(seal.open(right)),
                        "The bank says of " + carried.called() + ": " + told.code() + ", " + told.words()));
        return "Other bank details were proposed for " + place.remitTo().payee() + "; a second person confirms them.";
    }

    /** Looks at one that waits again. */
    public boolean again(Actor by, long id) {
        by.mayDo(Deed.RECORD_CLEARING);
        return dealWith(by, id);
    }

    /** Somebody dealt with it otherwise. */
    @Transactional
    public void close(Actor by, long id, String why) {
        by.mayDo(Deed.RECORD_CLEARING);
        if (why.isBlank()) {
            throw Refusal.invalidField("reason-missing", "why", "Say what became of it.");
        }
        if (rows.lock(id).isEmpty()) {
            throw Refusal.conflict("notice-done", "Somebody dealt with this meanwhile. Look again.");
        }
        rows.done(by, id, "CLOSED", why.strip());
        audit.record(by, "close bank notice", "bank notice " + id, Map.of("why", why.strip()));
    }
}
