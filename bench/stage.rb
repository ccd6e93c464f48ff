# frozen_string_literal: true

require_relative "../lib/bavard/core/contrast/clearer"
require_relative "../lib/bavard/core/stage/document"
require_relative "../lib/bavard/pictures/workshop"
require_relative "stage_drawing"
require_relative "stage_edits"
require_relative "stage_outfits"
require_relative "steal"

module Bench
  # The Stage in use: edited, drawn, judged.
  class Stage
    def run
      found, steal = Steal.around { {**StageEdits.new.run, **StageDrawing.new.run, **StageOutfits.new.run, **legibility} }
      found.merge(steal_percent: steal.round(1))
    end

    private

    # All of a 1920 × 1080 picture behind one piece, and what would make it better.
    def legibility
      workshop = Bavard::Pictures::Workshop.new
      made = workshop.make(File.binread(File.expand_path("../assets/backdrops/table.svg", __dir__)), "grid")
      document = Bavard::Core::Stage::Document
      chat = Bavard::Core::Pieces::ChatPiece.build("chat1", "width" => 1920, "height" => 1080, "plate_opacity" => 10)
      piece = document.drawn(chat, document.empty["house"])
      took = Array.new(5) { judge(piece, made.files.fetch("grid")) }
      {legibility_ms: took.map(&:first).min.round(1), clearer_ms: took.map(&:last).min.round(1)}
    ensure
      workshop&.stop
    end

    def judge(piece, grid)
      began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      patches = Bavard::Core::Contrast::Patches.read(grid).under([0, 0, 1920, 1080], on: [1920, 1080])
      legibility = Bavard::Core::Contrast::Legibility.new(piece, patches)
      legibility.worst
      legibility.usual
      middle = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      Bavard::Core::Contrast::Clearer.new(piece, patches).ways
      [(middle - began) * 1000, (Process.clock_gettime(Process::CLOCK_MONOTONIC) - middle) * 1000]
    end
  end
end
