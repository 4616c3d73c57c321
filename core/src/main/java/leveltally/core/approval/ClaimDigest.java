package leveltally.core.approval;

import java.time.LocalDate;
import java.util.Collection;
import java.util.Comparator;
import leveltally.core.Sha256;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimLine;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.vendors.PaymentMethod;

/**
 * The SHA-256 of exactly what an approver agreed to, over a canonical form: payee name, remit-to, bank details (as their
 * keyed hash), amount, lines, discount, credits, check date, bank account, method. The note and the ledger date are not part
 * of it, nor is the order of the lines. Every text goes in with its length before it, so that no two contents share a form.
 *
 * @param hex 64 lower-case hex digits
 */
public record ClaimDigest(String hex) {
    public ClaimDigest {
        if (!hex.matches("[0-9a-f]{64}")) {
            throw new IllegalArgumentException("digest: 64 hex digits wanted, not " + hex);
        }
    }

    public static ClaimDigest of(Claim claim, LocalDate checkDate, BankAccountId account, PaymentMethod method) {
        // the first form knew no bank details; a claim without them keeps it, so that digests given once still hold
        String bankKey = claim.remitTo().bankKey();
        StringBuilder form = new StringBuilder(bankKey.isEmpty() ? "claim-1" : "claim-2");
        if (!bankKey.isEmpty()) {
            put(form, bankKey);
        }
        put(form, claim.remitTo().payee());
        put(form, String.valueOf(claim.remitTo().lines().size()));
        claim.remitTo().lines().forEach(line -> put(form, line));
        put(form, claim.amount().currency().getCurrencyCode());
        put(form, claim.amount().plain());
        put(form, checkDate.toString());
        put(form, String.valueOf(account.value()));
        put(form, method.name());
        put(form, String.valueOf(claim.lines().size()));
        claim.lines().stream()
                .sorted(Comparator.comparing(ClaimLine::kind)
                        .thenComparing(line -> line.item().map(InvoiceId::value).orElse(0L))
                        .thenComparing(ClaimDigest::form))
                .map(ClaimDigest::form)
                .forEach(form::append);
        return new ClaimDigest(Sha256.hex(form.toString()));
    }

    private static String form(ClaimLine line) {
        StringBuilder form = new StringBuilder();
        put(form, line.kind().name());
        line.content().forEach(text -> put(form, text));
        put(form, line.gross().plain());
        put(form, line.discount().plain());
        put(form, line.credit().plain());
        return form.toString();
    }

    /** The SHA-256 over the digests of a whole sending: what an approver has in front of them, the round included. */
    public static ClaimDigest ofAll(int round, Collection<ClaimDigest> claims) {
        StringBuilder form = new StringBuilder("round-").append(round);
        claims.stream().map(ClaimDigest::hex).sorted().forEach(hex -> put(form, hex));
        return new ClaimDigest(Sha256.hex(form.toString()));
    }

    private static void put(StringBuilder form, String text) {
        form.append('|').append(text.length()).append(':').append(text);
    }
}
