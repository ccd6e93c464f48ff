# frozen_string_literal: true

module Bavard
  module Feeds
    module Xmpp
      # The lines of a room that somebody may still change or take back: who wrote each, by which id the writer knows it, and by which the room.
      class SaidBefore
        MOST = 2000
        # key:: of its writer; platform_id:: by which the line is known; own_id:: the writer's own
        Said = Struct.new(:key, :platform_id, :own_id, :login)

        def initialize
          @said = []
          @by_id = {}
          @by_own_id = {}
        end

        def add(said)
          @said << said
          @by_id[said.platform_id] = said
          @by_own_id[[said.key, said.own_id]] = said if said.own_id
          forget(@said.shift) if @said.size > MOST
        end

        # @return [Said, nil] of a line that its writer changes: the first of it, whatever was changed since
        def own(key, own_id) = @by_own_id[[key, own_id]]

        # @return [Said, nil]
        def [](platform_id) = @by_id[platform_id]

        # Whoever has a name only for as long as they are there is another one when they come again.
        def leaves(key)
          @said.select { |said| said.key == key }.each { |said| said.key = nil }
          @by_own_id.delete_if { |(one, _), _| one == key }
        end

        # @param to [String] how they are called from now on
        def renamed(key, to)
          @said.each { |said| said.key = to if said.key == key }
          @by_own_id.transform_keys! { |(one, own_id)| [one == key ? to : one, own_id] }
        end

        private

        def forget(said)
          @by_id.delete(said.platform_id) if @by_id[said.platform_id].equal?(said)
          key = [said.key, said.own_id]
          @by_own_id.delete(key) if @by_own_id[key].equal?(said)
        end
      end
    end
  end
end
