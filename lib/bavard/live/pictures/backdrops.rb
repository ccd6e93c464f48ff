# frozen_string_literal: true

require_relative "../../core/contrast/patches"

module Bavard
  module Live
    # The pictures behind a stage in the editor, as grids of colours: those that ship, and the host's own.
    class Backdrops
      FOLDER = File.expand_path("../../../../assets/backdrops", __dir__)
      SHIPPED = {"dawn" => "Dawn over the reeds", "white" => "A white sky", "thermal" => "Night, thermal", "table" => "Ringing table"}.freeze
      KEPT = 200
      OWN = /\Afile:([0-9a-f]{32})\z/

      # @param pictures [PictureDesk] that makes the shipped ones' grids, once
      # @param cabinet [Pictures::Cabinet]
      def initialize(pictures, cabinet)
        @pictures = pictures
        @cabinet = cabinet
        @lock = Mutex.new
        @known = {}
      end

      # @param key [String] one of SHIPPED, or "file:" and the id of an own one
      # @return [Core::Contrast::Patches, nil]
      def grid(key)
        known, found = @lock.synchronize { [@known.key?(key), @known[key]] }
        return found if known

        # Outside of the lock: drawn twice at worst, and nobody waits for another picture than their own.
        read(key).tap { |patches| @lock.synchronize { remember(key, patches) } }
      end

      private

      def remember(key, patches)
        @known.shift if @known.size >= KEPT
        @known[key] = patches
      end

      def read(key)
        id = OWN.match(key)&.captures&.first || (SHIPPED.key?(key) && shipped(key))
        bytes = id && @cabinet.grid(id)
        bytes && Core::Contrast::Patches.read(bytes)
      end

      def shipped(key) = @pictures.make(File.binread(File.join(FOLDER, "#{key}.svg")), "grid", :backdrops, patient: true).id
    end
  end
end
