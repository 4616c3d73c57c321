package leveltally.server.proof;

/** What the laws ask of what the bank paid. */
final class ClearingQueries {
    private ClearingQueries() {}

    /** L3: a payment is cleared while a movement of the bank stands for it, and no longer. */
    static final String CLEARED_BY_ITS_BANK = """
            SELECT CONCAT('The payment to ', p.payee, ' is ', LOWER(p.state), ', and ', CASE WHEN k.id IS NULL
              THEN 'no movement of the bank stands for it' ELSE 'a movement of the bank stands for it' END)
            FROM payment p LEFT JOIN bank_match k ON k.standing_payment_id = p.id
            WHERE (p.state = 'CLEARED') <> (k.id IS NOT NULL)
              -- what its bank paid can be undone afterwards; the bank paid it all the same
              AND NOT (k.id IS NOT NULL AND p.state IN ('RETURNED', 'REVERSED'))
            """;

    /** L4: what is open of a movement is what nothing stands for. */
    static final String OPEN_IS_WHAT_IS_LEFT = """
            SELECT CONCAT('A movement of ', m.bank_date, ' of ', m.amount_minor, ' is open by ', m.open_minor,
              ', and what stands for it comes to ', x.matched)
            FROM bank_movement m JOIN (SELECT n.id, COALESCE(SUM(k.amount_minor), 0) AS matched FROM bank_movement n
              LEFT JOIN bank_match k ON k.movement_id = n.id AND k.undone_on IS NULL GROUP BY n.id) x ON x.id = m.id
            WHERE m.open_minor <> m.amount_minor - x.matched
            """;
}
