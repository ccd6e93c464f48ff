# frozen_string_literal: true

require "vips"
require_relative "../lib/bavard/core/contrast/legibility"
require_relative "../lib/bavard/core/pieces/outfit"
require_relative "../lib/bavard/core/stage/edit"
require_relative "../lib/bavard/live/pictures/backdrops"
require_relative "../lib/bavard/live/pictures/picture_desk"
require_relative "../lib/bavard/pictures/cabinet"
require_relative "../lib/bavard/pictures/workshop"
require_relative "letter_pixels"
require_relative "stage_outfits"

module Bench
  # How well words can be read in each outfit over each picture that ships, by the pixels that a browser draws: around every letter,
  # against its colour. Of the two forms of an outfit the one that suits the picture counts, as a host would choose it.
  class LegiblePixels
    include StageVisit

    SIZE = [1920, 1080].freeze
    FORMS = %w[dark bright].freeze
    KINDS = %w[alerts goal challenge newest counter shout_out captions room_card text clock now_line].freeze
    # Where letters are is told by what changes when they have a colour that is nowhere, and when they have none.
    LETTERS = %w[#f0f transparent].freeze
    HIDDEN = <<~CSS
      *, *::before, *::after { animation: none !important; transition: none !important }
      [data-sample]::before, [data-no-room]::after { content: none !important }
    CSS
    SET_UP = <<~JS.freeze
      (async () => {
        const still = new CSSStyleSheet();
        still.replaceSync(#{HIDDEN.to_json});
        window.bare = new CSSStyleSheet();
        document.adoptedStyleSheets = [...document.adoptedStyleSheets, still, window.bare];
        await document.fonts.ready;
        for (const one of document.getAnimations()) one.finish();
      })()
    JS
    # Every text that can be seen: where its rows stand, and its colour.
    TEXTS = <<~JS
      (() => {
        const walker = document.createTreeWalker(document.querySelector("#stage"), NodeFilter.SHOW_TEXT);
        const found = [];
        while (walker.nextNode()) {
          const node = walker.currentNode;
          if (node.data.trim() === "") continue;
          const range = document.createRange();
          range.selectNodeContents(node);
          const colour = getComputedStyle(node.parentElement).color.match(/[\\d.]+/g).map(Number);
          const piece = node.parentElement.closest(".piece")?.dataset.piece;
          for (const { left, top, width, height } of range.getClientRects())
            if (width > 4 && height > 4 && (colour[3] ?? 1) > 0.5) found.push([piece, colour.slice(0, 3), left, top, width, height]);
        }
        return found;
      })()
    JS

    # @return [Hash{String => Hash}] by outfit: worst: the ratio, over: which picture, of: which piece; told: Bavard's own measure
    def run
      with_scene do
        page = signed_in
        place(page)
        Bavard::Core::Pieces::Outfit.shipped.keys.to_h { |outfit| [outfit, worst(page, outfit).merge(told: told(outfit).round(2))] }
      end
    end

    private

    def place(page)
      said(page, StageOutfits::SENT, KINDS)
      moves = page.evaluate("[...document.querySelector('#draft').contentDocument.querySelectorAll('.piece')].map((one) => one.dataset.piece)")
      moves.each_with_index do |id, at|
        values = {x: 40 + ((at % 3) * 620), y: 30 + ((at / 3) * 250), width: 580, height: 230}
        said(page, "window.sent('edits', #{{do: "set", piece: id, values:}.to_json}).then((answer) => answer.status)")
      end
    end

    def worst(page, outfit)
      said(page, StageOutfits::DRESSED, outfit)
      by_form = FORMS.to_h { |form| [form, measured(page, form)] }
      found = Bavard::Live::Backdrops::SHIPPED.keys.map do |picture|
        FORMS.map { |form| [by_form[form][picture], picture].flatten }.max_by(&:first)
      end
      ratio, piece, picture = found.min_by(&:first)
      {worst: ratio.round(2), over: picture, of: piece}
    end

    # @return [Float] what `Core::Contrast::Legibility` says of the same
    def told(outfit)
      document = KINDS.reduce(Bavard::Core::Stage::Document.empty) { |made, kind| edited(made, "do" => "place", "kind" => kind) }
      worn = edited(document, "do" => "outfit", "outfit" => outfit)
      grids.map { |patches| FORMS.map { |form| worn["pieces"].map { |piece| legible(piece, worn["house"], form, patches) }.min }.max }.min
    end

    def edited(document, edit) = Bavard::Core::Stage::Edit.apply(document, edit).document

    def legible(piece, house, form, patches)
      Bavard::Core::Contrast::Legibility.new(Bavard::Core::Stage::Document.drawn(piece, house, form:), patches).worst.ratio
    end

    def grids
      @grids ||= Dir.mktmpdir do |folder|
        workshop = Bavard::Pictures::Workshop.new
        pictures = Bavard::Live::PictureDesk.new(fetcher: nil, workshop:, cabinet: Bavard::Pictures::Cabinet.new(folder), store: nil, clock: nil,
          log: nil)
        backdrops = Bavard::Live::Backdrops.new(pictures, Bavard::Pictures::Cabinet.new(folder))
        Bavard::Live::Backdrops::SHIPPED.keys.map { |key| backdrops.grid(key).under([0, 0, *SIZE], on: SIZE) }
      ensure
        workshop&.stop
      end
    end

    # @return [Hash{String => Array(Float, String)}] by picture, the worst ratio and its piece
    def measured(page, form)
      draft = browser.create_page
      draft.command("Emulation.setDeviceMetricsOverride", width: 1920, height: 1080, deviceScaleFactor: 1, mobile: false)
      draft.go_to("#{page.current_url[%r{\Ahttp://[^/]+/stage/\d+}]}/draft?form=#{form}")
      sleep 0.1 until draft.evaluate("Boolean(document.querySelector('[data-sample] .alert'))")
      sleep 0.5
      said(draft, SET_UP)
      Bavard::Live::Backdrops::SHIPPED.keys.to_h { |picture| [picture, over(draft, picture)] }
    ensure
      draft&.close
    end

    def over(draft, picture)
      said(draft, <<~JS)
        new Promise((done) => { const image = new Image(); image.onload = done; image.src = "/assets/backdrops/#{picture}.svg"; })
          .then(() => { document.documentElement.style.background = 'url("/assets/backdrops/#{picture}.svg") center / cover'; })
      JS
      draft.execute("window.bare.replaceSync('')")
      texts = draft.evaluate(TEXTS)
      shots = LETTERS.map { |colour| shot(draft, "* { color: #{colour} !important; -webkit-text-fill-color: #{colour} !important }") }
      pixels = LetterPixels.new(*shots)
      texts.filter_map { |piece, colour, *box| pixels.ratio(colour, box)&.then { |found| [found, piece] } }.min_by(&:first)
    end

    def shot(draft, css)
      draft.execute("window.bare.replaceSync(#{css.to_json})")
      draft.evaluate_async("requestAnimationFrame(() => requestAnimationFrame(arguments[0]))", 10)
      Vips::Image.new_from_buffer(draft.screenshot(format: "png", encoding: :binary), "").extract_band(0, n: 3)
    end
  end
end
