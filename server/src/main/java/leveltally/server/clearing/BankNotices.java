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
import leveltally.core.electronic.AchCodes;
import leveltally.core.electronic.AchNotice;
import leveltally.core.electronic.AchNoticeReader;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.BankDetails;
import leveltally.server.audit.AuditTrail;
import leveltally.server.clearing.NoticeRows.Kind;
import leveltally.server.clearing.NoticeRows.Told;
import leveltally.server.electronic.Announcements;
import leveltally.server.electronic.Carried;
import leveltally.server.electronic.CarriedPayments;
import leveltally.server.frame.Seal;
import leveltally.server.vendors.Place;
import leveltally.server.vendors.Vendors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * What a bank says of single payments after it took their file: one comes back and is reversed, something of an account is
 * otherwise and becomes a proposal. What cannot be dealt with by itself waits, with its reason, and holds up none of the others.
 */
@Service
public class BankNotices {
    private static final int AT_ONCE = 1_000;

    private final NoticeRows rows;
    private final CarriedPayments payments;
    private final Vendors vendors;
    private final Seal seal;
    private final AuditTrail audit;
    private final TransactionTemplate each;
    private final Announcements announcements;
    private final NoticeDealing dealing;

    BankNotices(
            NoticeRows rows,
            CarriedPayments payments,
            Vendors vendors,
            Seal seal,
            AuditTrail audit,
            TransactionTemplate each,
            Announcements announcements,
            NoticeDealing dealing) {
        this.announcements = announcements;
        this.dealing = dealing;
        this.rows = rows;
        this.payments = payments;
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

    /** Reads a file of ACH returns and changes, whole or not at all, and deals with what it tells. */
    public NoticesRead read(Actor by, BankAccountId account, byte[] content) {
        by.mayDo(Deed.RECORD_CLEARING);
        Put put = Objects.requireNonNull(each.execute(status -> put(by, account, content)));
        return dealtWith(by, put.all(), put.fresh());
    }

    /** Deals with these of so many that were told. */
    NoticesRead dealtWith(Actor by, int all, List<Long> fresh) {
        int done = dealing.all(by, fresh);
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

    /**
     * Writes down that the bank sends transfers back that are in the ledger.
     *
     * @param words why, of each
     * @return the ids of what was not told before
     */
    @Transactional
    public List<Long> putReturned(Actor by, BankAccountId account, String code, Map<Carried, String> words) {
        return rows.put(
                by,
                account,
                words.entrySet().stream()
                        .map(one -> returned(one.getKey(), code, one.getValue()))
                        .toList());
    }

    private static Told returned(Carried carried, String code, String words) {
        return new Told(
                Kind.RETURNED,
                code,
                carried.called(),
                words,
                carried.payment().value(),
                carried.amount().minor(),
                carried.amount().currency().getCurrencyCode(),
                null);
    }

    /** Looks at one that waits again. */
    public boolean again(Actor by, long id) {
        by.mayDo(Deed.RECORD_CLEARING);
        return dealing.one(by, id);
    }

    /** Somebody dealt with it otherwise. */
    @Transactional
    public void close(Actor by, long id, String why) {
        by.mayDo(Deed.RECORD_CLEARING);
        if (why.isBlank()) {
            throw Refusal.invalidField("reason-missing", "why", "Say what became of it.");
        }
        if (rows.lock(List.of(id)).isEmpty()) {
            throw Refusal.conflict("notice-done", "Somebody dealt with this meanwhile. Look again.");
        }
        rows.done(by, "CLOSED", Map.of(id, why.strip()));
        audit.record(by, "close bank notice", "bank notice " + id, Map.of("why", why.strip()));
    }
}
