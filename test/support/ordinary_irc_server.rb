# frozen_string_literal: true

# An ordinary server between one client and us: what it does with a client's line (IRCv3 message tags, RFC 2812). Tags without "+" are
# the server's own and dropped; the prefix is the server's; modes are for operators alone.
class OrdinaryIrcServer
  RELAYED = %w[PRIVMSG NOTICE TAGMSG].freeze

  def initialize(nick, account: nil)
    @nick = nick
    @account = account
  end

  # @param bytes [String] as a client sends them
  # @return [Array<String>] lines as they come to us
  def relay(bytes)
    bytes.dup.force_encoding(Encoding::UTF_8).scrub("?").split(/[\r\n\0]+/).filter_map { |line| relayed(line) }
  end

  private

  def relayed(line)
    head, rest = line.start_with?("@") ? line.split(" ", 2) : [nil, line]
    rest = rest.to_s.sub(/\A *:\S* */, "").strip
    command, target, text = rest.match(/\A(\S+)(?: +(\S+))?(?: +:?(.*))?\z/m)&.captures
    return unless command && target

    case command.upcase
    when *RELAYED then said(command.upcase, head, target, text)
    when "NICK" then ":#{prefix} NICK :#{@nick = target[/\A[A-Za-z][\w-]{0,20}\z/] || @nick}"
    when "JOIN", "PART" then ":#{prefix} #{command.upcase} #{target}"
    end
  end

  def said(command, head, target, text)
    own = head.to_s.delete_prefix("@").split(";").select { |pair| pair.start_with?("+") }
    own << "account=#{@account}" if @account
    "#{"@#{own.join(";")} " if own.any?}:#{prefix} #{command} #{target}#{" :#{text}" if text}"
  end

  def prefix = "#{@nick}!u@h"
end
