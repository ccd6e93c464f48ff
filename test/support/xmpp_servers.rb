# frozen_string_literal: true

require "digest/sha1"
require "etc"
require "socket"
require "tmpdir"
require_relative "own_ports"
require_relative "trusted_certificate"
require_relative "wait"
require_relative "../../lib/bavard/feeds/xmpp/element"

# Debian's XMPP servers, as they come, each in a folder of its own: one host with accounts, one that lets anybody in, and rooms.
module XmppServers
  HOST = "reedmere.example"
  GUESTS = "guests.reedmere.example"
  ROOMS = "rooms.reedmere.example"
  PASSWORD = "reeds-and-water"

  # What both have.
  class Server
    include Wait

    attr_reader :port

    CERTIFICATE = TrustedCertificate.new("DNS:#{HOST}", "DNS:#{GUESTS}").trust

    def initialize
      @folder = Dir.mktmpdir("xmpp")
      @port = OwnPorts.one
      keep_certificate
    end

    def start
      configure
      FileUtils.chown_R(user, nil, @folder) if Process.uid.zero?
      FileUtils.chmod(0o755, @folder)
      @pid = run(*command, out: log, err: log, pgroup: true)
      wait_for("#{self.class} to listen: #{File.read(log)[-400..]}") { listening? }
      people.each { |name| register(name) }
      self
    end

    def stop
      end_it
      Process.wait(@pid)
    rescue SystemCallError
      nil
    ensure
      FileUtils.remove_entry(@folder, true)
    end

    def end_it = Process.kill("TERM", -@pid)

    def people = %w[ann bo]
    def place = "127.0.0.1:#{port}"
    def room(name = "hide") = "#{name}@#{ROOMS}"

    private

    def keep_certificate
      File.write(in_folder("cert.pem"), CERTIFICATE.certificate.to_pem + CERTIFICATE.key.to_pem)
      File.write(in_folder("key.pem"), CERTIFICATE.key.to_pem)
    end

    def log = File.join(@folder, "log")
    def in_folder(name) = File.join(@folder, name)
    def as_user = Process.uid.zero? ? ["runuser", "-u", user, "--"] : []
    def run(*command, **options) = Process.spawn({"HOME" => @folder}, *as_user, *command, chdir: @folder, **options)
    def do_it(*command) = Process.wait(run(*command, out: log, err: log))

    def listening?
      TCPSocket.new("127.0.0.1", port).close
      true
    rescue SystemCallError
      false
    end
  end

  # One of the two.
  class Prosody < Server
    def user = "prosody"

    private

    def configure
      Dir.mkdir(in_folder("data"))
      File.write(in_folder("prosody.cfg.lua"), <<~LUA)
        data_path = "#{in_folder("data")}"
        pidfile = "#{in_folder("pid")}"
        log = { warn = "*console" }
        interfaces = { "127.0.0.1" }
        c2s_ports = { #{port} }
        http_ports = { }
        https_ports = { }
        modules_enabled = { "roster", "saslauth", "tls", "disco", "ping", "pep", "vcard_legacy" }
        modules_disabled = { "s2s" }
        allow_unencrypted_plain_auth = true
        c2s_require_encryption = false
        ssl = { certificate = "#{in_folder("cert.pem")}", key = "#{in_folder("key.pem")}" }
        VirtualHost "#{HOST}"
          authentication = "internal_hashed"
        VirtualHost "#{GUESTS}"
          authentication = "anonymous"
        Component "#{ROOMS}" "muc"
          modules_enabled = { "muc_mam" }
          muc_log_by_default = true
      LUA
    end

    def command = ["prosody", "--config", in_folder("prosody.cfg.lua"), "-F"]
    def register(name) = do_it("prosodyctl", "--config", in_folder("prosody.cfg.lua"), "register", name, HOST, PASSWORD)
  end

  # The other.
  class Ejabberd < Server
    def user = "ejabberd"

    private

    def configure
      Dir.mkdir(in_folder("spool"))
      Dir.mkdir(in_folder("logs"))
      File.write(in_folder("ejabberd.yml"), <<~YAML)
        hosts: ["#{HOST}", "#{GUESTS}"]
        loglevel: warning
        certfiles: ["#{in_folder("cert.pem")}"]
        host_config:
          "#{GUESTS}":
            auth_method: [anonymous]
            anonymous_protocol: sasl_anon
            allow_multiple_connections: true
        listen:
          - port: #{port}
            ip: "127.0.0.1"
            module: ejabberd_c2s
            starttls: true
            access: c2s
            shaper: none
        access_rules:
          c2s: [{allow: all}]
          register: [{allow: all}]
        api_permissions:
          "all": {from: [ejabberd_ctl], who: all, what: "*"}
        modules:
          mod_disco: {}
          mod_ping: {}
          mod_roster: {}
          mod_vcard: {}
          mod_vcard_xupdate: {}
          mod_mam: {default: always}
          mod_muc:
            host: "#{ROOMS}"
            min_message_interval: 0
            min_presence_interval: 0
            default_room_options: {mam: true, public: true, persistent: true, anonymous: false}
      YAML
    end

    def run(*command, **options) = Process.spawn({"HOME" => @folder, "ERL_EPMD_PORT" => epmd_port.to_s, "ERL_EPMD_ADDRESS" => "127.0.0.1"}, *command, chdir: @folder, **options)
    def epmd_port = @epmd_port ||= OwnPorts.one
    def node = "bavard#{port}@localhost"

    def control
      ["ejabberdctl", "--node", node, "--config-dir", @folder, "--config", in_folder("ejabberd.yml"), "--logs", in_folder("logs"), "--spool", in_folder("spool")]
    end

    def command = [*control, "foreground"]

    # What it begins runs apart from it: the machine, and what knows machines by name.
    def end_it
      do_it(*control, "stop")
      do_it("/bin/sh", "-c", "while ! epmd -kill; do sleep 0.1; done") if Dir["/proc/[0-9]*/environ"].any? { |file| ours?(file) }
    end

    def ours?(environ)
      File.read(environ).include?("ERL_EPMD_PORT=#{epmd_port}\0") && File.read(environ.sub("environ", "comm")).start_with?("epmd")
    rescue SystemCallError
      false
    end

    def register(name) = do_it(*control, "register", name, HOST, PASSWORD)
  end

  # Somebody with an account, without TLS and without any code of the application's: says what it is told to, and hears what comes.
  class Talker
    include Wait

    attr_reader :heard

    def initialize(server, name, nick: name)
      @server = server
      @nick = nick
      @heard = +""
      @socket = TCPSocket.new("127.0.0.1", server.port)
      enter(name)
    end

    def enter(name)
      begin_stream
      send_raw("<auth xmlns='urn:ietf:params:xml:ns:xmpp-sasl' mechanism='PLAIN'>#{["\0#{name}\0#{PASSWORD}"].pack("m0")}</auth>")
      hear("<success")
      begin_stream
      send_raw("<iq type='set' id='b1'><bind xmlns='urn:ietf:params:xml:ns:xmpp-bind'/></iq>")
      hear("<jid>")
    end

    def begin_stream
      @heard.clear
      send_raw("<?xml version='1.0'?><stream:stream to='#{HOST}' version='1.0' xmlns='jabber:client' xmlns:stream='http://etherx.jabber.org/streams'>")
      hear("</stream:features>")
    end

    def join_as_guest(room)
      @room = room
      send_raw("<presence to='#{room}/#{@nick}'><x xmlns='http://jabber.org/protocol/muc'/></presence>")
      hear("110")
      self
    end

    # Makes the room where it is not there yet.
    def join(room)
      @room = room
      send_raw("<presence to='#{room}/#{@nick}'><x xmlns='http://jabber.org/protocol/muc'/></presence>")
      hear("110")
      send_raw("<iq type='set' id='own' to='#{room}'><query xmlns='http://jabber.org/protocol/muc#owner'><x xmlns='jabber:x:data' type='submit'/></query></iq>")
      hear("id='own'", "id=\"own\"")
      self
    end

    def say(text, id: "m#{rand(10**9)}", inside: "")
      send_raw("<message to='#{@room}' type='groupchat' id='#{id}'><body>#{CGI.escapeHTML(text)}</body>#{inside}</message>")
      id
    end

    # What others see of them: a picture (XEP-0153).
    def wear(bytes)
      photo = "<PHOTO><TYPE>image/png</TYPE><BINVAL>#{[bytes].pack("m0")}</BINVAL></PHOTO>"
      iq("<vCard xmlns='vcard-temp'>#{photo}</vCard>", to: nil)
      send_raw("<presence to='#{@room}/#{@nick}'><x xmlns='vcard-temp:x:update'><photo>#{Digest::SHA1.hexdigest(bytes)}</photo></x></presence>")
    end

    def iq(xml, id: "q#{rand(10**9)}", to: @room)
      send_raw("<iq type='set' id='#{id}'#{" to='#{to}'" if to}>#{xml}</iq>")
      hear("id='#{id}'", "id=\"#{id}\"")
    end

    def send_raw(xml) = @socket.write(xml)

    def hear(*any)
      wait_for("#{any.first} in #{@heard[-600..] || @heard}") do
        bytes = @socket.read_nonblock(65_536, exception: false)
        @heard << bytes.force_encoding(Encoding::UTF_8).scrub if bytes.is_a?(String)
        any.any? { |one| @heard.include?(one) }
      end
    end

    def leave = send_raw("<presence to='#{@room}/#{@nick}' type='unavailable'/>")
    def close = @socket.close
  end
end
