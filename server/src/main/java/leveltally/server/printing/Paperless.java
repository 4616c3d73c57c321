package leveltally.server.printing;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.paper.CheckText;
import leveltally.core.payments.PaymentId;
import leveltally.server.batches.Batch;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Keeps what payments without paper are for, as their payees are told: a copy years later shows the day's company and lines. */
@Service
public class Paperless {
    private final ClaimTexts texts;
    private final Contents contents;

    Paperless(ClaimTexts texts, Contents contents) {
        this.texts = texts;
        this.contents = contents;
    }

    /**
     * Keeps it of payments that were just made; the statements do not grow with them.
     *
     * @param payments of these claims, in the same order
     * @param references what each is called
     */
    @Transactional
    public void keep(Batch batch, List<Claim> claims, List<PaymentId> payments, List<String> references) {
        Map<ClaimId, CheckText> said = texts.of(batch, claims);
        Map<PaymentId, CheckText> kept = new LinkedHashMap<>();
        for (int i = 0; i < claims.size(); i++) {
            kept.put(payments.get(i), said.get(claims.get(i).id()).called(references.get(i)));
        }
        contents.keepPaperless(kept);
    }
}
