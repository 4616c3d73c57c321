package leveltally.server.electronic;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FileState;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.electronic.AchAgreement;
import leveltally.core.electronic.FileAbout;
import leveltally.core.electronic.FileSplit;
import leveltally.core.electronic.FiledPayment;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.approval.Verification;
import leveltally.server.audit.AuditTrail;
import leveltally.server.bankfiles.PaymentFileStore;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.company.BusinessDay;
import leveltally.server.electronic.ElectronicItems.Item;
import leveltally.server.electronic.FilingLook.Ready;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Periods;
import leveltally.server.payments.Payments;
import leveltally.server.printing.Paperless;
import leveltally.server.vendors.Place;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Puts the payments of an approved batch into files for the bank. References, files and what stands in them are recorded in one
 * transaction: nothing is there of it, or all. Handing a file over comes after, and changes nothing of it.
 */
@Service
public class Filing {
    private final Batches batches;
    private final BankAccounts accounts;
    private final Periods periods;
    private final ElectronicWays ways;
    private final ElectronicItems items;
    private final FilingLook looks;
    private final PaymentFileStore store;
    private final Verification verification;
    private final Payments payments;
    private final Paperless paperless;
    private final Announcements announcements;
    private final Vendors vendors;
    private final BusinessDay day;
    private final JdbcClient jdbc;
    private final AuditTrail audit;

    Filing(
            Batches batches,
            BankAccounts accounts,
            Periods periods,
            ElectronicWays ways,
            ElectronicItems items,
            FilingLook looks,
            PaymentFileStore store,
            Verification verification,
            Payments payments,
            Paperless paperless,
            Announcements announcements,
            Vendors vendors,
            BusinessDay day,
            JdbcClient jdbc,
            AuditTrail audit) {
        this.batches = batches;
        this.accounts = accounts;
        this.periods = periods;
        this.ways = ways;
        this.items = items;
        this.looks = looks;
        this.store = store;
        this.verification = verification;
        this.payments = payments;
        this.paperless = paperless;
        this.announcements = announcements;
        this.vendors = vendors;
        this.day = day;
        this.jdbc = jdbc;
        this.audit = audit;
    }

    /** @param behind why payments stayed without a file, by claim */
    public record Filed(List<Long> files, Map<ClaimId, String> behind) {}

    /** Makes files of all that can go into one. */
    @Transactional
    public Filed file(Actor by, BatchId id) {
        return file(by, id, Set.of());
    }

    /**
     * Makes files of what waits for one.
     *
     * @param part the payments that go now; empty for all that can
     */
    @Transactional
    public Filed file(Actor by, BatchId id, Set<ClaimId> part) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        Batch batch = batches.lockAnyVersion(id);
        mustGoByFile(batch);
        accounts.lock(batch.account());
        periods.shareOpen(batch.ledgerDate());
        ElectronicWay way = ways.lock(batch.account(), batch.way());
        FilingLook.Looked looked = looks.look(by, batch, way, part);
        looked.refuseIfNone();
        List<Ready> ready = looked.ready();
        List<Integer> split =
                FileSplit.of(ready.stream().map(one -> one.claim().amount()).toList(), way.perFile(), way.splits());
        mustFitTheDay(way, looked);
        verification.verify(batch, ready.stream().map(Ready::claim).toList());
        Map<ClaimId, Going> going = refer(by, batch, way, ready);
        List<Long> files = new ArrayList<>();
        int from = 0;
        for (int count : split) {
            files.add(make(by, way, looked, ready.subList(from, from + count), going));
            from += count;
        }
        if (batch.state() == BatchState.APPROVED) {
            batches.move(by, id, BatchState.FILED, "put it into a file");
        }
        audit.record(
                by,
                "file payments",
                "batch " + id.value(),
                Map.of(
                        "files",
                        files.toString(),
                        "payments",
                        ready.size(),
                        "behind",
                        looked.behind().size()));
        return new Filed(files, looked.behind());
    }

    /**
     * Makes a file that announces the accounts of a batch to which nothing was paid yet, and pays nothing.
     *
     * @return the file
     */
    @Transactional
    public long announce(Actor by, BatchId id) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        Batch batch = batches.lockAnyVersion(id);
        mustGoByFile(batch);
        accounts.lock(batch.account());
        ElectronicWay way = ways.lock(batch.account(), batch.way());
        FilingLook.Looked looked = looks.look(by, batch, way, Set.of());
        // several payments may go to one account
        Map<String, Ready> first = new LinkedHashMap<>();
        looked.unannounced()
                .forEach(one -> first.putIfAbsent(one.claim().remitTo().bankKey(), one));
        if (first.isEmpty() || !(way.agreement() instanceof AchAgreement ach)) {
            throw Refusal.conflict("nothing-to-announce", "No account of this batch waits to be announced.");
        }
        verification.verify(
                batch, looked.unannounced().stream().map(Ready::claim).toList());
        Map<Long, Place> places =
                vendors
                        .placesOf(first.values().stream()
                                .map(one -> one.claim().vendor())
                                .toList())
                        .values()
                        .stream()
                        .flatMap(List::stream)
                        .collect(Collectors.toMap(Place::id, place -> place));
        ways.take(way, first.size());
        long trace = accounts.takeTraces(way.account(), first.size());
        List<Announcements.Announced> announced = new ArrayList<>();
        for (Ready one : first.values()) {
            int at = announced.size();
            announced.add(new Announcements.Announced(
                    placed(places.values(), one),
                    one.claim().remitTo().bankKey(),
                    one.filed(way.called(way.nextReference() + at), FiledPayment.sequence(trace + at))));
        }
        long file = announcing(by, way, ach, announced);
        announcements.put(way, file, id, announced);
        audit.record(
                by, "announce accounts", "batch " + id.value(), Map.of("file", file, "accounts", announced.size()));
        return file;
    }

    /** The address of the vendor whose account it is. */
    private static long placed(Collection<Place> places, Ready one) {
        return places.stream()
                .filter(place -> place.vendor() == one.claim().vendor().value()
                        && place.remitTo()
                                .bankKey()
                                .equals(one.claim().remitTo().bankKey()))
                .findFirst()
                .orElseThrow()
                .id();
    }

    private long announcing(Actor by, ElectronicWay way, AchAgreement ach, List<Announcements.Announced> announced) {
        PaymentFileStore.Numbered numbered = store.next(way.account(), way.id(), ach.letters(), by.today());
        LocalDate effective = ways.cutOff(way).nearest(by.today(), by.today(), by.now());
        Money nothing = Money.zero(announced.get(0).entry().amount().currency());
        FileAbout about = new FileAbout(
                FileNames.id(way, numbered.serial()),
                by.today().atTime(LocalTime.ofInstant(by.now(), day.zone())),
                numbered.ofDay(),
                effective,
                way.own(),
                announced.size(),
                nothing);
        return store.keep(
                by,
                numbered,
                new PaymentFileStore.Wanted(
                        way.account(), way.id(), effective, FileNames.name(way, about.id()), 0, nothing, null),
                out -> ach.announce(
                        about,
                        taking -> {
                            for (Announcements.Announced one : announced) {
                                taking.take(one.entry());
                            }
                        },
                        out));
    }

    private static void mustGoByFile(Batch batch) {
        if (!batch.method().isElectronic() || batch.purpose().isAfterTheFact()) {
            throw Refusal.conflict(
                    "not-by-file", "This batch pays by " + batch.method().words() + ", which no file of ours carries.");
        }
        if (batch.state() != BatchState.APPROVED && batch.state() != BatchState.FILED) {
            throw Refusal.conflict(
                    "wrong-state",
                    "This batch is " + batch.state().words() + ". Only an approved batch goes into a file.");
        }
    }

    private void mustFitTheDay(ElectronicWay way, FilingLook.Looked looked) {
        Money limit = way.perDay();
        if (limit == null) {
            return;
        }
        Money before = Money.ofMinor(
                jdbc.sql(
                                "SELECT COALESCE(SUM(x.amount_minor), 0) FROM bank_file f JOIN bank_file_item x ON x.file_id = f.id"
                                        + " AND x.refused_why IS NULL WHERE f.way_id = ? AND f.pays_on = ? AND f.state <> ?")
                        .params(way.id().value(), looked.paysOn(), FileState.REFUSED.name())
                        .query(Long.class)
                        .single(),
                limit.currency());
        if (before.plus(looked.total()).compareTo(limit) > 0) {
            throw Refusal.conflict(
                    "day-too-large",
                    "The bank takes " + limit + " for one day this way. Files for " + Dates.inWords(looked.paysOn())
                            + " come to " + before + " already, and these to " + looked.total()
                            + ". Choose fewer, or pay some on another day.");
        }
    }

    /** A payment under its reference. */
    private record Going(PaymentId payment, FiledPayment filed) {}

    /** Makes payments of claims that have none, and gives them their references. */
    private Map<ClaimId, Going> refer(Actor by, Batch batch, ElectronicWay way, List<Ready> ready) {
        Map<ClaimId, Going> going = new HashMap<>();
        List<Ready> fresh = ready.stream().filter(one -> one.item() == null).toList();
        List<PaymentId> made =
                payments.prepare(by, batch, fresh.stream().map(Ready::claim).toList());
        ways.take(way, fresh.size());
        long trace = accounts.takeTraces(way.account(), fresh.size());
        items.refer(way, made, way.nextReference(), trace);
        paperless.keep(
                batch,
                fresh.stream().map(Ready::claim).toList(),
                made,
                LongStream.range(0, fresh.size())
                        .mapToObj(i -> way.called(way.nextReference() + i))
                        .toList());
        for (int i = 0; i < fresh.size(); i++) {
            going.put(
                    fresh.get(i).claim().id(),
                    new Going(
                            made.get(i),
                            fresh.get(i).filed(way.called(way.nextReference() + i), FiledPayment.sequence(trace + i))));
        }
        for (Ready one : ready) {
            Item item = one.item();
            if (item != null) {
                going.put(one.claim().id(), new Going(item.payment(), one.filed(item.called(), item.sequence())));
            }
        }
        return going;
    }

    private long make(
            Actor by, ElectronicWay way, FilingLook.Looked looked, List<Ready> in, Map<ClaimId, Going> going) {
        PaymentFileStore.Numbered numbered =
                store.next(way.account(), way.id(), way.agreement().letters(), by.today());
        List<Going> order = in.stream().map(one -> going.get(one.claim().id())).toList();
        Money total = Money.sum(
                order.stream().map(one -> one.filed().amount()).toList(),
                order.get(0).filed().amount().currency());
        FileAbout about = new FileAbout(
                FileNames.id(way, numbered.serial()),
                // the day its files are counted by, also where the company's day is not the clock's
                by.today().atTime(LocalTime.ofInstant(by.now(), day.zone())),
                numbered.ofDay(),
                looked.paysOn(),
                way.own(),
                order.size(),
                total);
        long file = store.keep(
                by,
                numbered,
                new PaymentFileStore.Wanted(
                        way.account(),
                        way.id(),
                        looked.paysOn(),
                        FileNames.name(way, about.id()),
                        order.size(),
                        total,
                        follows(in)),
                out -> way.agreement()
                        .write(
                                about,
                                taking -> {
                                    for (Going one : order) {
                                        taking.take(one.filed());
                                    }
                                },
                                out));
        items.putIn(
                file,
                order.stream().map(Going::payment).toList(),
                order.stream().map(one -> one.filed().amount()).toList());
        return file;
    }

    /** The refused file of which it carries payments again, the newest of several. */
    private static @Nullable Long follows(List<Ready> in) {
        return in.stream()
                .map(Ready::item)
                .filter(Objects::nonNull)
                .map(Item::refusedFile)
                .filter(Objects::nonNull)
                .max(Long::compare)
                .orElse(null);
    }

    /** Those of an approved batch's payments that the bank took and the ledger has not; none is refused singly meanwhile. */
    @Transactional
    public List<PaymentId> took(BatchId batch) {
        return items.held(items.of(batch).values().stream()
                .filter(item -> !item.posted() && item.taken())
                .map(Item::payment)
                .toList());
    }

    /** How many of these claims are not in the ledger. */
    @Transactional(readOnly = true)
    public int unposted(BatchId batch, List<Claim> standing) {
        Map<ClaimId, Item> filed = items.of(batch);
        return (int) standing.stream()
                .filter(claim -> {
                    Item item = filed.get(claim.id());
                    return item == null || !item.posted();
                })
                .count();
    }
}
