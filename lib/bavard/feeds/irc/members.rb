# frozen_string_literal: true

module Bavard
  module Feeds
    module Irc
      # Who has which rank in the channel, as the server says it: by NAMES, MODE and PREFIX (RFC 2812 §3.2, §5; ISUPPORT). No client
      # can set its own.
      #
      #   members = Members.new
      #   members.names("@ann +bo cy")
      #   members.badges("ann")   # => ["moderator"]
      class Members
        # What a rank is in Bavard's words, by its letter in a mode.
        BADGES = {"q" => "host", "a" => "moderator", "o" => "moderator", "h" => "moderator", "v" => "guest"}.freeze
        # Where a server does not say which signs stand for which modes.
        USUAL = {"~" => "q", "&" => "a", "@" => "o", "%" => "h", "+" => "v"}.freeze
        # Modes that take a word with them: always, or when they are set (RFC 2811; CHANMODES says it for a server).
        WITH_WORD = "beIqkl"
        WITH_WORD_SET = "fjlL"
        PREFIX = /\APREFIX=\(([A-Za-z]+)\)(\S+)\z/
        CHANMODES = /\ACHANMODES=([A-Za-z]*),([A-Za-z]*),([A-Za-z]*)/
        GUEST = "~"
        MOST = 100_000
        NONE = [].freeze
        # Names that are remembered of one person, and people who took another one.
        MOST_FORMER = 10
        MOST_RENAMED = 500

        # @return [Boolean] whether every line says whose account it is of (IRCv3 account-tag)
        attr_accessor :told

        def initialize
          @told = false
          @signs = USUAL
          @with_word = WITH_WORD
          @with_word_set = WITH_WORD_SET
          @ranks = {}
          @accounts = {}
          @former = {}
          @called_now = {}
        end

        # @param params [Array<String>] of 005
        def supported(params)
          params.each do |word|
            if (match = PREFIX.match(word))
              @signs = match[2].chars.zip(match[1].chars).to_h
            elsif (match = CHANMODES.match(word))
              @with_word = match[1] + match[2]
              @with_word_set = match[3]
            end
          end
        end

        # @param text [String] of 353: "@ann +bo cy"; with multi-prefix all signs of each
        def names(text)
          text.split.each do |word|
            signs = word[/\A[#{Regexp.escape(@signs.keys.join)}]*/]
            modes = signs.chars.filter_map { |sign| @signs[sign] }
            nick = word[signs.length..][/\A[^!]+/]
            put(nick, modes) if nick && modes.any?
          end
        end

        # @param modes [String] such as "+o-v"
        # @param words [Array<String>] what goes with them, in order
        def changed(modes, words)
          words = words.dup
          set = true
          modes.each_char do |mode|
            next set = mode == "+" if "+-".include?(mode)

            rank = @signs.value?(mode)
            word = words.shift if rank || @with_word.include?(mode) || (set && @with_word_set.include?(mode))
            ranked(word, mode, set) if rank && word
          end
        end

        # @param account [String, nil] as JOIN (extended-join) and ACCOUNT (account-notify) tell it; "*": none
        def account_of(nick, account)
          return @accounts.delete(key(nick)) if account.nil? || account == "*"

          @accounts[key(nick)] = account if @accounts.size < MOST || @accounts.key?(key(nick))
        end

        def renamed(nick, other)
          was_called(login(nick), nick, other)
          [@ranks, @accounts].each do |all|
            known = all.delete(key(nick))
            known ? all[key(other)] = known : all.delete(key(other))
          end
        end

        def left(nick) = [@ranks, @accounts].each { |all| all.delete(key(nick)) }
        def clear = [@ranks, @accounts, @former, @called_now].each(&:clear)

        # @return [Array<String>] what they called themselves before, as far as nobody else does so by now
        def former(nick) = @former.fetch(key(nick), NONE).select { |login| @called_now[login] == key(nick) }

        # Whoever speaks under a name is whose it is.
        def spoke(nick)
          login = login(nick)
          @called_now.delete(login) if @called_now.key?(login) && @called_now[login] != key(nick)
        end

        # @return [String] the account, or what they call themselves
        def login(nick) = @accounts[key(nick)] || guest(nick)

        # A nick is not the account of the same name: where the server tells accounts, whoever has none is marked.
        def guest(nick) = told ? "#{GUEST}#{nick}" : nick

        # @return [Array<String>] such as ["moderator"]
        def badges(nick)
          modes = @ranks[key(nick)] or return NONE
          modes.filter_map { |mode| BADGES[mode] }.uniq
        end

        private

        def was_called(login, nick, other)
          names = [*@former.delete(key(nick)), login].last(MOST_FORMER)
          @former[key(other)] = names
          @former.shift if @former.size > MOST_RENAMED
          names.each { |name| @called_now[name] = key(other) }
          @called_now.shift while @called_now.size > MOST_RENAMED * MOST_FORMER
        end

        def ranked(nick, mode, set)
          modes = @ranks.fetch(key(nick), NONE)
          put(nick, set ? modes | [mode] : modes - [mode])
        end

        def put(nick, modes)
          return @ranks.delete(key(nick)) if modes.empty?

          @ranks[key(nick)] = modes if @ranks.size < MOST || @ranks.key?(key(nick))
        end

        # RFC 1459: {}|^ are the small letters of []\~.
        def key(nick) = nick.downcase.tr("[]\\\\~", "{}|^")
      end
    end
  end
end
