package app.knottag.server.account;

/** Leads manage people and sites, technicians do the work, the office looks on and confirms from its end. */
public enum Role {
    LEAD,
    TECHNICIAN,
    OFFICE
}
