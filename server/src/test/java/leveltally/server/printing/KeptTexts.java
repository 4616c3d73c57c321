package leveltally.server.printing;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.paper.CheckText;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.VendorId;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.paper.CheckPages;
import leveltally.server.vendors.VendorPapers;
import org.springframework.context.ApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;

/** What is kept of the documents of an application, against what their claims say today. */
public final class KeptTexts {
    private KeptTexts() {}

    /** @return how many documents were compared */
    public static int areWhatTheClaimsSay(ApplicationContext of) {
        JdbcClient jdbc = of.getBean(JdbcClient.class);
        int compared = 0;
        for (Long id : jdbc.sql("SELECT DISTINCT batch_id FROM print_run ORDER BY 1")
                .query(Long.class)
                .list()) {
            Batch batch = of.getBean(Batches.class).get(new BatchId(id));
            ClaimRows rows = of.getBean(ClaimRows.class);
            Map<ClaimId, Claim> claims =
                    rows.ever(batch.id()).stream().collect(Collectors.toMap(Claim::id, Function.identity()));
            var stubs = rows.stubs(claims.values());
            CheckText.Payer payer = of.getBean(CheckPages.class).payer(batch.account(), batch.way());
            Map<VendorId, Paperwork> wishes = of.getBean(VendorPapers.class)
                    .of(claims.values().stream().map(Claim::vendor).toList());
            Map<Long, CheckText> wanted = new HashMap<>();
            jdbc.sql("SELECT d.id, n.number, p.claim_id FROM print_run r JOIN document d ON d.run_id = r.id"
                            + " JOIN check_number n ON n.id = d.check_number_id JOIN payment p ON p.id = d.payment_id"
                            + " WHERE r.batch_id = ?")
                    .param(id)
                    .query((java.sql.ResultSet r) -> {
                        ClaimId claim = new ClaimId(r.getLong(3));
                        wanted.put(
                                r.getLong(1),
                                CheckText.of(
                                        payer,
                                        claims.get(claim),
                                        batch.checkDate(),
                                        r.getLong(2),
                                        stubs.get(claim),
                                        wishes.get(claims.get(claim).vendor()).dates()));
                    });
            Map<Long, CheckText> kept = new HashMap<>();
            of.getBean(Contents.class).of(wanted.keySet()).forEach((document, one) -> kept.put(document, one.text()));
            assertThat(kept).isEqualTo(wanted);
            compared += wanted.size();
        }
        return compared;
    }
}
