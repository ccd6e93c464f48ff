# frozen_string_literal: true

module Bavard
  module Core
    module Gate
      module Words
        # Finds many strings in one going through a text (Aho and Corasick, 1975), so that no list and no text can make it
        # take more than one step a character, and a few back.
        #
        #   automaton = Automaton.new(%w[he she hers])
        #   automaton.each_in("ushers") { |index, ends_at| … }   # index of the string, and where behind it the text goes on
        class Automaton
          SHIFT = 21

          # @param strings [Array<String>] none of them empty
          def initialize(strings)
            @next = {}
            @ends = [nil]
            strings.each_with_index { |string, index| add(string, index) }
            link
          end

          # @yieldparam index [Integer] of the string that was found
          # @yieldparam ends_at [Integer] behind its last character
          def each_in(text)
            state = 0
            text.each_codepoint.with_index(1) do |code, ends_at|
              state = step(state, code)
              node = state
              while node
                @ends[node]&.each { |index| yield index, ends_at }
                node = @found_behind[node]
              end
            end
          end

          private

          def add(string, index)
            node = string.each_codepoint.inject(0) do |at, code|
              @next[(at << SHIFT) | code] ||= @ends.push(nil).size - 1
            end
            (@ends[node] ||= []) << index
          end

          def step(state, code)
            until (to = @next[(state << SHIFT) | code])
              return 0 if state.zero?

              state = @back[state]
            end
            to
          end

          # Where to go on from each state when nothing fits: the longest other beginning that was just read.
          def link
            @back = Array.new(@ends.size, 0)
            @found_behind = Array.new(@ends.size)
            by_state = Hash.new { |hash, state| hash[state] = [] }
            @next.each { |key, to| by_state[key >> SHIFT] << [key & ((1 << SHIFT) - 1), to] }
            waiting = by_state.fetch(0, []).map(&:last)
            until waiting.empty?
              state = waiting.shift
              by_state.fetch(state, []).each do |code, to|
                link_one(state, code, to)
                waiting << to
              end
            end
          end

          def link_one(state, code, to)
            back = step(@back[state], code)
            @back[to] = back
            @found_behind[to] = @ends[back] ? back : @found_behind[back]
          end
        end
      end
    end
  end
end
