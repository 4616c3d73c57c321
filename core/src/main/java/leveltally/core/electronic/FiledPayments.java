package leveltally.core.electronic;

import java.io.IOException;

/** Payments that are handed over one by one, so that a file of any length needs no memory. */
@FunctionalInterface
public interface FiledPayments {
    /** Whoever takes them. */
    @FunctionalInterface
    interface Taking {
        void take(FiledPayment payment) throws IOException;
    }

    /** Hands all of them over, in their order. */
    void each(Taking taking) throws IOException;
}
