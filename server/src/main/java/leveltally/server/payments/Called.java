package leveltally.server.payments;

import leveltally.core.vendors.PaymentMethod;

/**
 * What people call a payment that is no check, and what carried it.
 *
 * @param name such as {@code Wire FT-2291}
 */
public record Called(String name, PaymentMethod method) {}
