package app.knottag.standins;

import app.knottag.core.kind.Protocol;
import app.knottag.core.reach.SiteModel.Role;
import app.knottag.standins.GardenCentre.Made;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The made-up animal clinic and the offices, so that every kind stands somewhere on the bench. */
final class OtherSites {

    private static final String CLINIC = "10.44.24.";
    private static final String OFFICE = "10.44.32.";

    /** Net, id, name, kind, end of the MAC, serial, host, leased host, port, whether it is set up. */
    private static final String ENDPOINTS = """
            24 | staff-reader     | Staff fingerprint reader | fingerprint-reader | 61 | FR2200417    | 20 | 120 | 5005  | no
            24 | back-door        | Back door reader         | door-reader        | 62 | DR-410022    | 21 | 121 | 4370  | yes
            24 | picture-store    | X-ray picture store      | storage-box        | 63 | SB7K20XA11   | 22 | 122 | 10445 | no
            24 | clinic-copier    | Reception copier         | copier             | 64 | KX0044172    | 23 | 123 | 9100  | yes
            24 | waiting-hub      | Waiting room hub         | meeting-room-hub   | 65 | MH3300218    | 24 | 124 | 8443  | no
            24 | kennel-camera    | Kennel yard camera       | camera             | 66 | CM50021877   | 25 | 125 | 8554  | no
            24 | reception-pad    | Reception signature pad  | signature-pad      | 67 | SP204418     | 26 | 126 | 7950  | no
            24 | line-outlet      | Router outlet            | watched-outlet     | 68 | WO110473     | 27 | 127 | 8001  | no
            24 | kiosk-1          | Check-in kiosk 1         | kiosk-set          | 71 | QS-20017     | 28 | 128 | 8700  | no
            24 | kiosk-2          | Check-in kiosk 2         | kiosk-set          | 72 | QS-20018     | 29 | 129 | 8700  | no
            24 | reception-pinpad | Reception PIN pad        | till-pin-pad       | 73 | PP-40881207  | 71 | 130 | 7601  | no
            24 | pet-scale        | Pet scale                | other-endpoint     | 74 | SC 77-120    | 40 | 131 | 10080 | no
            32 | desk-scanner     | Front desk scanner       | document-scanner   | 81 | NS300917     | 20 | 120 | 8610  | no
            32 | fax-line         | Fax line                 | fax-adapter        | 82 | FA770215     | 21 | 121 | 10080 | no
            32 | hall-clock       | Hall time clock          | time-clock         | 83 | TK310058     | 22 | 122 | 7300  | no
            32 | meeting-phone    | Meeting room phone       | desk-phone         | 84 | DP60018442   | 23 | 123 | 8060  | no
            32 | ledger-store     | Ledger store             | storage-box        | 85 | SB9M41QC07   | 24 | 124 | 10445 | yes
            32 | front-door       | Front door reader        | door-reader        | 86 | DR-410077    | 25 | 125 | 4370  | no
            32 | archive-printer  | Archive label printer    | label-printer      | 87 | LW-30611D    | 26 | 126 | 7100  | no
            32 | partner-tablet   | Tablet of the partner    | own-device         | 88 | TAB-OTT-1    | 27 | 127 | 10080 | no
            """;

    /** An accounting office that was set up two months ago, and what came there since. */
    private static final String ACCOUNTS = "10.44.40.";

    private static final String SINCE = """
            front-copier     | Front copier             | copier             | 22 | KX0051907    | 20 | 120 | 9100  | yes
            post-scanner     | Post scanner             | document-scanner   | 24 | NS301144     | 21 | 121 | 8610  | yes
            accounts-clock   | Accounts time clock      | time-clock         | 26 | TK310241     | 22 | 122 | 7300  | yes
            file-printer     | File room label printer  | label-printer      | 28 | LW-31877C    | 24 | 124 | 7100  | yes
            file-door        | File room door reader    | door-reader        | 30 | DR-410218    | 26 | 126 | 4370  | yes
            partner-phone    | Phone of the partners    | desk-phone         | 32 | DP60021177   | 25 | 125 | 8060  | yes
            year-store       | Year-end store           | storage-box        | 34 | SB9M41QF22   | 27 | 127 | 10445 | yes
            desk-two-scanner | Second desk scanner      | document-scanner   | 3A | NS301150     | 28 | 128 | 8610  | yes
            """;

    private OtherSites() {}

    static List<Made> devices() {
        var made = new ArrayList<Made>();
        made.add(router(CLINIC, "clinic-router", "00:00:5E:00:53:60"));
        made.add(router(OFFICE, "office-router", "00:00:5E:00:53:80"));
        made.add(GardenCentre.partner(
                CLINIC, "clinic-access", "Access computer", "00:00:5E:00:53:6A", 12, "WHO?", "DOOR {serial}"));
        made.add(GardenCentre.partner(
                OFFICE, "office-hours", "Hours computer", "00:00:5E:00:53:8A", 12, "SERIAL", "SERIAL {serial}"));
        made.add(GardenCentre.partner(
                OFFICE, "office-access", "Access computer", "00:00:5E:00:53:8B", 13, "WHO?", "DOOR {serial}"));
        made.add(router(ACCOUNTS, "accounts-router", "00:00:5E:00:53:20"));
        made.add(GardenCentre.partner(
                ACCOUNTS, "accounts-hours", "Hours computer", "00:00:5E:00:53:38", 12, "SERIAL", "SERIAL {serial}"));
        made.add(GardenCentre.partner(
                ACCOUNTS, "accounts-access", "Access computer", "00:00:5E:00:53:36", 13, "WHO?", "DOOR {serial}"));
        for (String net : List.of(CLINIC, OFFICE, ACCOUNTS)) made.add(GardenCentre.relay(net));
        ENDPOINTS.lines().map(l -> l.split("\\|")).forEach(f -> made.add(endpoint(f)));
        SINCE.lines().map(l -> ("40 | " + l).split("\\|")).forEach(f -> made.add(endpoint(f)));
        made.add(stranger("kitchen-screen", "Kitchen screen", "00:00:5E:00:53:5A", 61));
        made.add(stranger("brought-tablet", "Somebody’s tablet", "02:5E:10:44:40:18", 24));
        made.add(stranger("visitor-phone", "A visitor’s phone", "06:5E:10:44:40:96", 150));
        return made;
    }

    private static Made router(String net, String id, String mac) {
        return new Made(
                GardenCentre.station(
                        net, id, "Router", Role.GATEWAY, mac, "", 1, 1, 0, "", "", Protocol.LINE, GardenCentre.PLAIN),
                Optional.empty(),
                true);
    }

    /** Somebody who is on no record, in the accounting office. */
    private static Made stranger(String id, String name, String mac, int host) {
        return new Made(
                GardenCentre.station(
                        ACCOUNTS,
                        id,
                        name,
                        Role.ENDPOINT,
                        mac,
                        "",
                        host,
                        host,
                        0,
                        "",
                        "",
                        Protocol.LINE,
                        GardenCentre.PLAIN),
                Optional.empty(),
                true);
    }

    private static Made endpoint(String[] f) {
        return GardenCentre.endpoint(
                "10.44." + f[0].strip() + ".",
                f[1].strip(),
                f[2].strip(),
                f[3].strip(),
                "00:00:5E:00:53:" + f[4].strip(),
                f[5].strip(),
                Integer.parseInt(f[6].strip()),
                Integer.parseInt(f[7].strip()),
                Integer.parseInt(f[8].strip()),
                f[9].strip().equals("yes"));
    }
}
