package leveltally.server.advice;

import leveltally.core.payments.PaymentId;
import leveltally.server.mail.Enclosing;
import leveltally.server.printing.RunPages;
import org.springframework.stereotype.Component;

/** Encloses the whole list of what a payment is for, as it was when its check was printed. */
@Component
class AdvicePdf implements Enclosing {
    private final RunPages pages;

    AdvicePdf(RunPages pages) {
        this.pages = pages;
    }

    @Override
    public Enclosure of(PaymentId payment) {
        return new Enclosure("remittance-advice-" + payment.value() + ".pdf", pages.advice(payment));
    }
}
