package leveltally.server.electronic;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.ClaimLine;
import leveltally.core.electronic.Announcement;
import leveltally.core.electronic.CutOff;
import leveltally.core.electronic.FiledPayment;
import leveltally.core.ledger.BankingDays;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.vendors.BankDetails;
import leveltally.server.batches.Batch;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Obstacles;
import leveltally.server.electronic.ElectronicItems.Item;
import leveltally.server.frame.Seal;
import leveltally.server.payments.Payments;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Looks at the payments of a batch that wait for a file: which can go into one now, on which day, and what keeps the others. */
@Component
class FilingLook {
    /** As long as any is. */
    private static final String LONGEST = "99999999999";

    private final ClaimRows claimRows;
    private final Obstacles obstacles;
    private final Payments payments;
    private final ElectronicItems items;
    private final ElectronicWays ways;
    private final Seal seal;

    private final Announcements announcements;

    FilingLook(
            ClaimRows claimRows,
            Obstacles obstacles,
            Payments payments,
            ElectronicItems items,
            ElectronicWays ways,
            Seal seal,
            Announcements announcements) {
        this.announcements = announcements;
        this.claimRows = claimRows;
        this.obstacles = obstacles;
        this.payments = payments;
        this.items = items;
        this.ways = ways;
        this.seal = seal;
    }

    /**
     * A payment that can go into a file.
     *
     * @param account where it goes
     * @param item its reference, where it stood in a file before; null where it has none
     */
    record Ready(Claim claim, BankDetails account, @Nullable Item item) {
        /** As the file carries it, under its reference. */
        FiledPayment filed(String called, int sequence) {
            return new FiledPayment(
                    called,
                    sequence,
                    claim.amount(),
                    account,
                    claim.remitTo().payee(),
                    claim.remitTo().lines(),
                    claim.lines().stream().map(Ready::document).toList());
        }

        private static FiledPayment.Document document(ClaimLine line) {
            return new FiledPayment.Document(
                    line.reference(),
                    line.settles().isNegative(),
                    line.gross().minus(line.discount()),
                    line.gross(),
                    line.discount());
        }
    }

    /**
     * What was seen.
     *
     * @param paysOn the day payees have the money of a file that is made now
     * @param waiting all that wait for a file
     * @param behind why some of them cannot go into one
     * @param unannounced those of them whose account has to be announced first
     */
    record Looked(
            LocalDate paysOn,
            List<Ready> ready,
            List<Claim> waiting,
            Map<ClaimId, String> behind,
            List<Ready> unannounced) {
        Money total() {
            return Money.sum(
                    ready.stream().map(one -> one.claim().amount()).toList(),
                    waiting.get(0).amount().currency());
        }

        /** @throws Refusal when none can go */
        void refuseIfNone() {
            if (waiting.isEmpty()) {
                throw Refusal.conflict("nothing-to-file", "Every payment of this batch stands in a file already.");
            }
            if (ready.isEmpty()) {
                throw Refusal.conflict(
                        "all-stay-behind",
                        "None can go into a file as it stands: "
                                + behind.values().stream().distinct().collect(Collectors.joining(" ")));
            }
        }
    }

    /** Shares holds and bank details until the transaction ends, so that nothing slips in between. */
    @Transactional
    Looked look(Actor by, Batch batch, ElectronicWay way, Set<ClaimId> part) {
        return look(by, batch, way, part, true);
    }

    /** The same for who only looks. */
    @Transactional(readOnly = true)
    Looked seen(Actor by, Batch batch, ElectronicWay way) {
        return look(by, batch, way, Set.of(), false);
    }

    private Looked look(Actor by, Batch batch, ElectronicWay way, Set<ClaimId> part, boolean shared) {
        Map<ClaimId, Item> filed = items.of(batch.id());
        Set<ClaimId> paid = payments.claims(batch.id());
        boolean fileable = batch.state() == BatchState.APPROVED || batch.state() == BatchState.FILED;
        List<Claim> waiting = fileable
                ? claimRows.of(batch.id()).stream()
                        .filter(claim -> part.isEmpty() || part.contains(claim.id()))
                        .filter(claim -> filed.containsKey(claim.id())
                                ? filed.get(claim.id()).waitsForAFile()
                                : !paid.contains(claim.id()))
                        .toList()
                : List.of();
        Map<ClaimId, List<String>> held =
                shared ? obstacles.shared(waiting.stream().map(Claim::id).toList()) : obstacles.of(batch.id());
        Map<ClaimId, String> banks = claimRows.sealedBanks(batch.id());
        Days days = Days.of(ways.cutOff(way), batch.checkDate(), by);
        Map<ClaimId, String> silent = notPayableYet(way, waiting, days.paysOn());
        List<Ready> unannounced = new ArrayList<>();
        List<Ready> ready = new ArrayList<>();
        Map<ClaimId, String> behind = new LinkedHashMap<>();
        for (Claim claim : waiting) {
            Item item = filed.get(claim.id());
            String bank = banks.get(claim.id());
            Ready one = new Ready(claim, bank == null ? way.own() : BankDetails.of(seal.open(bank)), item);
            String why = bank == null
                    ? claim.remitTo().payee() + " has no bank details in this batch. Take it out."
                    : why(one, held.getOrDefault(claim.id(), List.of()), way, days);
            String early = silent.getOrDefault(claim.id(), "");
            if (why.isEmpty() && !early.isEmpty()) {
                behind.put(claim.id(), claim.remitTo().payee() + ": " + early);
                if (early.equals(way.announcedDays().map(Announcement::missing).orElse(""))) {
                    unannounced.add(one);
                }
            } else if (why.isEmpty()) {
                ready.add(one);
            } else {
                behind.put(claim.id(), why);
            }
        }
        return new Looked(days.paysOn(), ready, waiting, behind, unannounced);
    }

    /** Where the bank wants accounts announced first: why money cannot go to some of them on that day. */
    private Map<ClaimId, String> notPayableYet(ElectronicWay way, List<Claim> waiting, LocalDate paysOn) {
        Map<ClaimId, String> silent = new HashMap<>();
        way.announcedDays().ifPresent(wait -> {
            Set<String> keys = waiting.stream()
                    .map(claim -> claim.remitTo().bankKey())
                    .filter(key -> !key.isEmpty())
                    .collect(Collectors.toSet());
            Set<String> paid = announcements.paid(way, keys);
            Map<String, Announcement> announced = announcements.of(way, keys);
            BankingDays calendar = ways.cutOff(way).days();
            for (Claim claim : waiting) {
                String key = claim.remitTo().bankKey();
                Announcement one = announced.get(key);
                Optional<String> against = one != null
                        ? one.against(paysOn, wait, calendar)
                        : paid.contains(key) ? Optional.empty() : Optional.of(Announcement.missing(wait));
                against.ifPresent(why -> silent.put(claim.id(), why));
            }
        });
        return silent;
    }

    /**
     * On which days files of a batch pay.
     *
     * @param refused why none made now can pay on the batch's own day; null where it can
     * @param paysOn that day, or the nearest
     */
    private record Days(LocalDate paysOn, @Nullable String refused) {
        static Days of(CutOff cutOff, LocalDate checkDate, Actor by) {
            try {
                cutOff.mustAllow(checkDate, by.today(), by.now());
                return new Days(checkDate, null);
            } catch (Refusal tooLate) {
                return new Days(cutOff.nearest(checkDate, by.today(), by.now()), tooLate.sentence());
            }
        }
    }

    /** Why a payment cannot go into a file; empty when it can. */
    private static String why(Ready one, List<String> held, ElectronicWay way, Days days) {
        String payee = one.claim().remitTo().payee();
        Money amount = one.claim().amount();
        if (!held.isEmpty()) {
            return payee + ": " + String.join("; ", held)
                    + ". Take it out, have the hold released, or send it again with what is true now.";
        }
        if (isOver(amount, way.perPayment()) || isOver(amount, way.perFile()) || isOver(amount, way.perDay())) {
            return payee + ": " + amount + " is more than the bank takes this way. Take it out and pay it another way.";
        }
        // what the bank refused is paid as soon as it can be; what was never asked for keeps the day it was approved
        // for
        if (days.refused() != null && one.item() == null) {
            return days.refused() + " Change the check date, which takes a new approval, or take it out.";
        }
        try {
            way.agreement().check(one.filed(LONGEST, 1), days.paysOn(), way.own());
            return "";
        } catch (Refusal refused) {
            return payee + ": " + refused.sentence() + " Until then take it out.";
        }
    }

    private static boolean isOver(Money amount, @Nullable Money limit) {
        return limit != null && amount.compareTo(limit) > 0;
    }
}
