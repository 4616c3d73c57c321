package leveltally.server.ledger;

import leveltally.core.ledger.WayId;
import leveltally.core.vendors.PaymentMethod;

/** What carries payments from one bank account: its checks, its credit transfers. */
public record WayToPay(WayId id, String name, PaymentMethod method) {}
