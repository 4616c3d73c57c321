package leveltally.server.advice;

import java.util.List;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.Advice;
import leveltally.server.mail.MailRows;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads how payees learn what a payment is for. */
@Component
class AdviceRows {
    private final JdbcClient jdbc;
    private final MailRows mails;

    AdviceRows(JdbcClient jdbc, MailRows mails) {
        this.jdbc = jdbc;
        this.mails = mails;
    }

    private record Found(Advice wish, String address, PaymentState state, boolean onPaper) {
        String words() {
            if (onPaper) {
                return wish.words();
            }
            return wish.isMailed() ? "by mail" : "when somebody prints it or sends it by mail";
        }
    }

    @Transactional(readOnly = true)
    public AdvisedView of(Actor by, PaymentId payment) {
        Found found = found(payment);
        boolean stands = found.state() == PaymentState.OUTSTANDING || found.state() == PaymentState.CLEARED;
        List<AdvisedView.AdviceMail> written = mails.ofPayment(payment).stream()
                .map(one -> new AdvisedView.AdviceMail(
                        one.id(),
                        one.address(),
                        one.state(),
                        one.stateWords(),
                        one.madeAt(),
                        one.sentAt(),
                        one.trouble()))
                .toList();
        return new AdvisedView(
                found.words(), found.address(), stands && Deed.MAIL_ADVICE.allowedTo(by.roles()), written);
    }

    private Found found(PaymentId payment) {
        return jdbc.sql(
                        "SELECT p.advice, p.state, v.email, EXISTS (SELECT 1 FROM check_number n WHERE n.payment_id = p.id) AS on_paper"
                                + " FROM payment p JOIN vendor v ON v.id = p.vendor_id WHERE p.id = :payment")
                .param("payment", payment.value())
                .query((r, n) -> new Found(
                        Advice.valueOf(r.getString("advice")),
                        r.getString("email"),
                        PaymentState.valueOf(r.getString("state")),
                        r.getBoolean("on_paper")))
                .optional()
                .orElseThrow(Advices::notThere);
    }
}
