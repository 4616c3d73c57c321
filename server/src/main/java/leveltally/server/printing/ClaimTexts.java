package leveltally.server.printing;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.Stub;
import leveltally.core.paper.CheckText;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.VendorId;
import leveltally.server.batches.Batch;
import leveltally.server.batches.ClaimRows;
import leveltally.server.paper.CheckPages;
import leveltally.server.vendors.VendorPapers;
import org.springframework.stereotype.Component;

/** What the checks of claims say, as their payees wish it. */
@Component
class ClaimTexts {
    private final CheckPages pages;
    private final ClaimRows rows;
    private final VendorPapers papers;

    ClaimTexts(CheckPages pages, ClaimRows rows, VendorPapers papers) {
        this.pages = pages;
        this.rows = rows;
        this.papers = papers;
    }

    /** In the order given, none with a number yet; the statements do not grow with the claims. */
    Map<ClaimId, CheckText> of(Batch batch, Collection<Claim> claims) {
        CheckText.Payer payer = pages.payer(batch.account(), batch.way());
        Map<ClaimId, Stub> stubs = rows.stubs(claims);
        Map<VendorId, Paperwork> wishes =
                papers.of(claims.stream().map(Claim::vendor).toList());
        Map<ClaimId, CheckText> texts = new LinkedHashMap<>();
        for (Claim claim : claims) {
            texts.put(
                    claim.id(),
                    CheckText.of(
                            payer,
                            claim,
                            batch.checkDate(),
                            null,
                            stubs.get(claim.id()),
                            wishes.getOrDefault(claim.vendor(), Paperwork.USUAL).dates()));
        }
        return texts;
    }
}
