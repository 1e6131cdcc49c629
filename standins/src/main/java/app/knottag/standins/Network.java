package app.knottag.standins;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.Arrays;
import org.apache.commons.net.ntp.NtpV3Impl;
import org.apache.commons.net.ntp.NtpV3Packet;
import org.apache.commons.net.ntp.TimeStamp;
import org.xbill.DNS.ARecord;
import org.xbill.DNS.DClass;
import org.xbill.DNS.Flags;
import org.xbill.DNS.Message;
import org.xbill.DNS.NSRecord;
import org.xbill.DNS.Name;
import org.xbill.DNS.Rcode;
import org.xbill.DNS.Section;
import org.xbill.DNS.Type;

/** The services of a network's router: names over UDP and TCP (RFC 1035), and time (RFC 5905). */
final class Network {

    private static final int DNS_PORT = 10_053;
    private static final int NTP_PORT = 10_123;
    private static final int LONGEST = 512;
    private static final int TTL = 300;

    private Network() {}

    static void serve(Sockets sockets, Bench bench, InetAddress address, Offer.Network network) throws IOException {
        var time = sockets.keep(new DatagramSocket(new InetSocketAddress(address, NTP_PORT)));
        sockets.listen(() -> time(time, bench));
        if (!network.resolver()) return;
        var udp = sockets.keep(new DatagramSocket(new InetSocketAddress(address, DNS_PORT)));
        sockets.listen(() -> names(udp, address, network));
        var tcp = sockets.server(new InetSocketAddress(address, DNS_PORT));
        sockets.listen(() -> {
            while (true)
                try (var socket = tcp.accept()) {
                    var in = new DataInputStream(socket.getInputStream());
                    byte[] answer = answer(in.readNBytes(in.readUnsignedShort()), address, network);
                    var out = new DataOutputStream(socket.getOutputStream());
                    out.writeShort(answer.length);
                    out.write(answer);
                } catch (EOFException hungUp) {
                    // The next caller may say more.
                }
        });
    }

    private static void names(DatagramSocket socket, InetAddress address, Offer.Network network) throws IOException {
        var packet = new DatagramPacket(new byte[LONGEST], LONGEST);
        while (true) {
            packet.setLength(LONGEST);
            socket.receive(packet);
            byte[] asked = Arrays.copyOf(packet.getData(), packet.getLength());
            byte[] answer = answer(asked, address, network);
            socket.send(new DatagramPacket(answer, answer.length, packet.getSocketAddress()));
        }
    }

    /** Knows the root and every name that begins with “mail.”, which is the relay of its own network. */
    private static byte[] answer(byte[] asked, InetAddress address, Offer.Network network) throws IOException {
        var query = new Message(asked);
        var question = query.getQuestion();
        var answer = new Message(query.getHeader().getID());
        answer.getHeader().setFlag(Flags.QR);
        answer.getHeader().setFlag(Flags.RA);
        answer.addRecord(question, Section.QUESTION);
        Name name = question.getName();
        if (!network.uplink()) answer.getHeader().setRcode(Rcode.SERVFAIL);
        else if (name.equals(Name.root) && question.getType() == Type.NS)
            answer.addRecord(
                    new NSRecord(Name.root, DClass.IN, TTL, Name.fromString("a.root.example.")), Section.ANSWER);
        else if (name.toString().startsWith("mail.") && question.getType() == Type.A) {
            byte[] own = address.getAddress();
            var relay = InetAddress.getByAddress(new byte[] {10, 44, own[2], 9});
            answer.addRecord(new ARecord(name, DClass.IN, TTL, relay), Section.ANSWER);
        } else answer.getHeader().setRcode(Rcode.NXDOMAIN);
        return answer.toWire();
    }

    private static void time(DatagramSocket socket, Bench bench) throws IOException {
        var buffer = new byte[LONGEST];
        while (true) {
            var packet = new DatagramPacket(buffer, buffer.length);
            socket.receive(packet);
            var asked = new NtpV3Impl();
            asked.setDatagramPacket(packet);
            var now = TimeStamp.getNtpTime(bench.time().toEpochMilli());
            var answer = new NtpV3Impl();
            answer.setMode(NtpV3Packet.MODE_SERVER);
            answer.setVersion(NtpV3Packet.VERSION_3);
            answer.setStratum(2);
            answer.setReferenceTime(now);
            answer.setOriginateTimeStamp(asked.getTransmitTimeStamp());
            answer.setReceiveTimeStamp(now);
            answer.setTransmitTime(now);
            var sent = answer.getDatagramPacket();
            sent.setSocketAddress(packet.getSocketAddress());
            socket.send(sent);
        }
    }
}
