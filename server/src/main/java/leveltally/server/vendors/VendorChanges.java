package leveltally.server.vendors;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PayeePlace;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.TwoPeople;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.Seal;
import leveltally.server.frame.WorkIds;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Addresses and bank details of vendors: proposed by one person, in force when a second confirms. The database refuses any
 * other way to change them.
 */
@Service
public class VendorChanges {
    private final ChangeRows rows;
    private final WorkIds ids;
    private final Seal seal;
    private final AuditTrail audit;

    VendorChanges(ChangeRows rows, WorkIds ids, Seal seal, AuditTrail audit) {
        this.rows = rows;
        this.ids = ids;
        this.seal = seal;
        this.audit = audit;
    }

    /** The address a vendor starts with. */
    record First(
            VendorId vendor,
            RemitTo remitTo,
            String postalCode,
            @Nullable BankDetails bank) {}

    /** Adds addresses that wait for a second person; one insert for many. */
    void propose(Actor by, List<First> firsts, String why) {
        WorkIds.Supply supply = ids.supply();
        List<ChangeRows.Proposal> proposals = firsts.stream()
                .map(first -> new ChangeRows.Proposal(
                        supply.next(),
                        first.vendor(),
                        supply.next(),
                        ChangeRows.Sealed.NOWHERE,
                        rows.sealed(first.remitTo(), first.postalCode(), first.bank()),
                        why))
                .toList();
        rows.insertPlaces(proposals);
        rows.insert(by, proposals);
    }

    /** Adds the address a vendor that is entered by hand starts with; it waits for a second person. */
    void proposeFirst(Actor by, VendorId vendor, RemitTo remitTo, String postalCode, @Nullable BankDetails bank) {
        check(new Wanted(null, remitTo.payee(), remitTo.lines(), postalCode, false, bank, "new vendor"));
        propose(by, List.of(new First(vendor, remitTo, postalCode.strip(), bank)), "new vendor");
    }

    /** Proposes the addresses of a vendor that are not in force and wait for nobody, as they are. */
    void proposeAsTheyAre(Actor by, VendorId vendor, String why) {
        WorkIds.Supply supply = ids.supply();
        List<ChangeRows.Proposal> proposals = rows.forgotten(vendor).stream()
                .map(at -> new ChangeRows.Proposal(
                        supply.next(), vendor, at, ChangeRows.Sealed.NOWHERE, rows.lockPlace(vendor, at), why))
                .toList();
        if (!proposals.isEmpty()) {
            rows.insert(by, proposals);
        }
    }

    /**
     * What somebody wants an address to become.
     *
     * @param remitTo the address to change; null for a further one
     * @param keepBank true to leave the bank details as they are; {@code bank} null takes them away otherwise
     */
    public record Wanted(
            @Nullable Long remitTo,
            String payee,
            List<String> lines,
            String postalCode,
            boolean keepBank,
            @Nullable BankDetails bank,
            String why) {}

    /** Proposes a change; nothing about payments changes until somebody else confirms it. */
    @Transactional
    public long propose(Actor by, VendorId vendor, Wanted wanted) {
        by.mayDo(Deed.PROPOSE_VENDOR_CHANGE);
        check(wanted);
        Long at = wanted.remitTo();
        ChangeRows.Sealed before = at == null ? ChangeRows.Sealed.NOWHERE : rows.lockPlace(vendor, at);
        if (at != null && rows.waiting(at) > 0) {
            throw Refusal.conflict(
                    "change-waits",
                    "A change of this address waits already. Have it confirmed, refused or taken back first.");
        }
        RemitTo remitTo = new RemitTo(wanted.payee().strip(), wanted.lines());
        ChangeRows.Sealed typed = rows.sealed(remitTo, wanted.postalCode().strip(), wanted.bank());
        ChangeRows.Sealed after = wanted.keepBank() ? typed.withBankOf(before) : typed;
        String what = after.place().changeFrom(before.place());
        if (what.isEmpty()) {
            throw Refusal.invalid("nothing-changed", "That is what the vendor has already. Change something first.");
        }
        if (at == null && rows.waitsAlready(vendor, after.place())) {
            throw Refusal.conflict(
                    "change-waits", "The same address waits for a second person already. Look at the vendor.");
        }
        WorkIds.Supply supply = ids.supply();
        ChangeRows.Proposal proposal = new ChangeRows.Proposal(
                supply.next(),
                vendor,
                at == null ? supply.next() : at,
                before,
                after,
                wanted.why().strip());
        if (at == null) {
            rows.insertPlaces(List.of(proposal));
        }
        rows.insert(by, List.of(proposal));
        audit.record(
                by,
                "propose vendor change",
                subject(vendor.value()),
                told(what, before.place(), after.place(), wanted.why()));
        return proposal.id();
    }

    private static void check(Wanted wanted) {
        List<String> lines = wanted.lines().stream()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .toList();
        if (wanted.payee().isBlank() || wanted.payee().length() > 120) {
            throw Refusal.invalidField("payee", "payee", "Name whom the payment is made out to, in 120 characters.");
        }
        if (lines.isEmpty() || lines.size() > 5 || String.join("\n", lines).length() > 300) {
            throw Refusal.invalidField("address", "lines", "An address has one to five lines.");
        }
        if (wanted.why().isBlank()) {
            throw Refusal.invalidField(
                    "reason-missing",
                    "why",
                    "Say where this comes from, such as a letter or a call you made yourself.");
        }
    }

    /**
     * Puts a change in force.
     *
     * @param typed the bank details as the second person typed them, unseen; null where the change has no new ones
     * @return the names of batches under way whose payments were asked for with what was before
     */
    @Transactional
    public List<String> confirm(Actor by, long id, @Nullable BankDetails typed) {
        by.mayDo(Deed.CONFIRM_VENDOR_CHANGE);
        ChangeRows.Waiting change = lock(id);
        TwoPeople.check(change.proposedBy(), by.person());
        if (change.isRebanked() && typed == null) {
            throw Refusal.invalidField(
                    "type-account",
                    "account",
                    "Type the account number from the vendor's own letter: it is not shown, and both must agree.");
        }
        if (change.isRebanked()
                && !seal.fingerprint(typed.canonical())
                        .equals(change.after().bank().key())) {
            throw Refusal.invalidField(
                    "accounts-differ",
                    "account",
                    "This is not the account that was proposed. Compare the letter again; if the letter says this one, refuse "
                            + "the change.");
        }
        rows.decide(by, List.of(id), "CONFIRMED", "");
        rows.putInForce(List.of(id));
        audit.record(by, "confirm vendor change", subject(change.vendor()), told(change, ""));
        return rows.batchesAsking(change.remitTo());
    }

    /** Puts many in force at once, as after bringing in a file; one record tells of them all. */
    @Transactional
    public int confirmAll(Actor by, Collection<Long> wanted) {
        by.mayDo(Deed.CONFIRM_VENDOR_CHANGE);
        List<ChangeRows.Waiting> changes = wanted.isEmpty() ? List.of() : rows.lock(wanted);
        if (changes.isEmpty()) {
            throw decidedAlready();
        }
        changes.forEach(change -> TwoPeople.check(change.proposedBy(), by.person()));
        if (changes.stream().anyMatch(ChangeRows.Waiting::isRebanked)) {
            throw Refusal.conflict(
                    "type-account",
                    "Some of these have new bank details. Confirm those one by one, typing the account number of each.");
        }
        List<Long> found = changes.stream().map(ChangeRows.Waiting::id).toList();
        rows.decide(by, found, "CONFIRMED", "");
        rows.putInForce(found);
        audit.record(
                by,
                "confirm vendor changes",
                "vendors",
                Map.of(
                        "count",
                        found.size(),
                        "vendors",
                        changes.stream()
                                .map(ChangeRows.Waiting::vendor)
                                .distinct()
                                .toList()));
        return found.size();
    }

    @Transactional
    public void refuse(Actor by, long id, String why) {
        by.mayDo(Deed.CONFIRM_VENDOR_CHANGE);
        ChangeRows.Waiting change = lock(id);
        TwoPeople.check(change.proposedBy(), by.person());
        if (why.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why not, so that it can be proposed better.");
        }
        rows.decide(by, List.of(id), "REFUSED", why.strip());
        audit.record(by, "refuse vendor change", subject(change.vendor()), told(change, why));
    }

    /** Takes back what one proposed oneself. */
    @Transactional
    public void takeBack(Actor by, long id) {
        by.mayDo(Deed.PROPOSE_VENDOR_CHANGE);
        ChangeRows.Waiting change = lock(id);
        if (!change.proposedBy().equals(by.person())) {
            throw Refusal.notAllowed(
                    "not-yours", "Somebody else proposed this change. It is confirmed or refused, not taken back.");
        }
        rows.decide(by, List.of(id), "TAKEN_BACK", "");
        audit.record(by, "take back vendor change", subject(change.vendor()), told(change, ""));
    }

    private ChangeRows.Waiting lock(long id) {
        return rows.lock(List.of(id)).stream().findFirst().orElseThrow(VendorChanges::decidedAlready);
    }

    private static Refusal decidedAlready() {
        return Refusal.conflict(
                "decided-already", "This change does not wait any more: somebody decided on it. Look at the vendor.");
    }

    private static String subject(long vendor) {
        return "vendor " + vendor;
    }

    private static Map<String, String> told(ChangeRows.Waiting change, String why) {
        return told(change.what(), change.before(), change.after(), why);
    }

    private static Map<String, String> told(String what, PayeePlace before, PayeePlace after, String why) {
        Map<String, String> detail = new TreeMap<>();
        detail.put("what", what);
        detail.put("before", before.inWords());
        detail.put("after", after.inWords());
        if (!why.isBlank()) {
            detail.put("reason", why.strip());
        }
        return detail;
    }
}
