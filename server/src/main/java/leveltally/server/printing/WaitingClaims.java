package leveltally.server.printing;

import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.checks.NumberRange;
import leveltally.core.checks.Signing;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.Paper;
import leveltally.core.paper.StandardLayouts;
import leveltally.core.payments.PaymentId;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Obstacles;
import leveltally.server.checks.Checks;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.paper.CheckPages;
import leveltally.server.paper.Layouts;
import leveltally.server.paper.PaperLayout;
import leveltally.server.payments.Payments;
import leveltally.server.vendors.VendorPapers;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** The payments of a batch that have no number, and who among them cannot have one now. */
@Component
public class WaitingClaims {
    /** As wide as any number is printed. */
    private static final long WIDEST_NUMBER = 88_888_888;

    private final Batches batches;
    private final ClaimRows rows;
    private final Obstacles obstacles;
    private final Payments payments;
    private final Checks checks;
    private final Series series;
    private final CheckPages pages;
    private final Layouts layouts;
    private final ClaimTexts texts;
    private final VendorPapers papers;

    WaitingClaims(
            Batches batches,
            ClaimRows rows,
            Obstacles obstacles,
            Payments payments,
            Checks checks,
            Series series,
            CheckPages pages,
            Layouts layouts,
            ClaimTexts texts,
            VendorPapers papers) {
        this.batches = batches;
        this.rows = rows;
        this.obstacles = obstacles;
        this.payments = payments;
        this.checks = checks;
        this.series = series;
        this.pages = pages;
        this.layouts = layouts;
        this.texts = texts;
        this.papers = papers;
    }

    /**
     * The payments of a batch without a number.
     *
     * @param behind who among them cannot have one now
     */
    public record Waiting(List<Claim> claims, Map<ClaimId, Behind> behind) {
        /** Those that can have one now. */
        List<Claim> ready() {
            return claims.stream()
                    .filter(claim -> !behind.containsKey(claim.id()))
                    .toList();
        }

        /** What keeps one behind; empty when nothing does. */
        String why(ClaimId claim) {
            Behind kept = behind.get(claim);
            return kept == null ? "" : kept.why();
        }
    }

    /** To be shown. */
    @Transactional(readOnly = true)
    public Waiting of(BatchId id, LocalDate today) {
        List<Claim> claims = unnumbered(id, payments.claims(id), checks.withoutNumber(id));
        Batch batch = batches.get(id);
        return new Waiting(
                claims, look(batch, claims, on(batch, today), obstacles.of(id)).behind());
    }

    /**
     * @param paid what became payments already
     * @param again those of them whose check was spoiled
     */
    List<Claim> unnumbered(BatchId id, Set<ClaimId> paid, Map<ClaimId, PaymentId> again) {
        return rows.of(id).stream()
                .filter(claim -> !paid.contains(claim.id()) || again.containsKey(claim.id()))
                .toList();
    }

    /** What the checks of a batch would be printed on. */
    PaperLayout on(Batch batch, LocalDate today) {
        return batch.method() == PaymentMethod.CHECK
                ? layouts.inForce(series.of(batch.way()).id(), today)
                : new PaperLayout(null, StandardLayouts.LETTER);
    }

    /**
     * What the checks of claims would say, none with a number yet.
     *
     * @param behind who among them cannot have one now
     */
    record Looked(Map<ClaimId, CheckText> texts, Map<ClaimId, Behind> behind) {
        /** @throws Refusal when nobody can */
        void refuseIfNone(String what) {
            if (behind.size() == texts.size()) {
                throw Refusal.conflict(
                        "all-stay-behind",
                        what
                                + behind.values().stream()
                                        .map(Behind::why)
                                        .distinct()
                                        .collect(Collectors.joining("; ")) + ".");
            }
        }
    }

    /** Looks who cannot be numbered now; what keeps them stays as it is until the transaction ends. */
    Looked look(Batch batch, List<Claim> claims, PaperLayout on) {
        return look(
                batch,
                claims,
                on,
                obstacles.shared(claims.stream().map(Claim::id).toList()));
    }

    /** Held, changed since it was sent, larger than a check may be, or with a text that cannot be drawn. */
    private Looked look(Batch batch, List<Claim> claims, PaperLayout on, Map<ClaimId, List<String>> obstacles) {
        Map<ClaimId, Behind> behind = new LinkedHashMap<>();
        Drawn drawn = new Drawn(
                pages.paper(batch.account(), batch.way()),
                on,
                texts.of(batch, claims),
                papers.of(claims.stream().map(Claim::vendor).toList()));
        Signing signing = series.of(batch.way()).signing();
        // each is drawn by itself: several at once
        Map<ClaimId, String> reasons = claims.parallelStream()
                .collect(Collectors.toConcurrentMap(
                        Claim::id, claim -> why(claim, obstacles.getOrDefault(claim.id(), List.of()), signing, drawn)));
        for (Claim claim : claims) {
            String why = reasons.get(claim.id());
            if (!why.isEmpty()) {
                behind.put(claim.id(), new Behind(claim.id(), claim.remitTo().payee(), why));
            }
        }
        return new Looked(drawn.texts(), behind);
    }

    /** Why a payment cannot be numbered; empty when it can. */
    private String why(Claim claim, List<String> obstacles, Signing signing, Drawn drawn) {
        String payee = claim.remitTo().payee();
        if (!obstacles.isEmpty()) {
            return payee + ": " + String.join("; ", obstacles)
                    + ". Take it out, have the hold released, or send it again with what is true now";
        }
        if (!signing.allows(claim.amount())) {
            return payee + ": " + claim.amount()
                    + " is more than a check of this series may be, as its controllers limit it. Take it out and pay it"
                    + " another way, or have the limit raised";
        }
        return undrawable(drawn, claim);
    }

    private record Drawn(Paper paper, PaperLayout on, Map<ClaimId, CheckText> texts, Map<VendorId, Paperwork> wishes) {}

    /** Why its papers cannot be drawn, with the widest number there is; empty when they can. */
    private String undrawable(Drawn drawn, Claim claim) {
        CheckText text = drawn.texts().get(claim.id()).numbered(WIDEST_NUMBER);
        Paperwork wish = drawn.wishes().getOrDefault(claim.vendor(), Paperwork.USUAL);
        try {
            pages.forThePrinter(text, drawn.on().layout(), drawn.paper(), null);
            if (wish.advice().isPrinted()) {
                pages.advice(text, drawn.on().layout());
            }
            if (wish.advice().isMailed()) {
                pages.wholeAdvice(text, drawn.on().layout());
            }
            return "";
        } catch (Refusal refused) {
            return text.payee() + ": " + refused.sentence() + " Until then take it out";
        }
    }

    /** Those for which the series has no number left stay behind, too. */
    void beyondTheStock(NumberSeries series, long first, List<Claim> claims, Map<ClaimId, Behind> behind) {
        NumberRange range = series.range();
        long next = first;
        for (Claim claim : claims) {
            if (behind.containsKey(claim.id())) {
                continue;
            }
            if (!range.holds(next)) {
                String payee = claim.remitTo().payee();
                behind.put(
                        claim.id(),
                        new Behind(
                                claim.id(),
                                payee,
                                payee + ": the series ends with " + range.last()
                                        + ". Take it out, and pay it by another series"));
            }
            next++;
        }
    }
}
