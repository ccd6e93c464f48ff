# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../support/stage_hands"
require_relative "../../lib/bavard/core/pieces/outfit"
require_relative "../../lib/bavard/core/stage/edit"

# One of each kind of piece, in every outfit, with the longest and strangest of what they can show: nothing is cut off and nothing
# stands outside.
class OutfitsTest < PreparedTest
  include StageHands

  Core = Bavard::Core
  KINDS = (Core::Pieces::KINDS.keys - %w[chat picture video space flurry portraits]).freeze
  LONGEST = "W" * 25
  # Name, message, amount.
  STRANGE = [
    [LONGEST, "#{"never before have so many waders stood on this bank at once, " * 4}really", "99999999.99"],
    ["هدهد الفجر", "صباح الخير من شرفة الطيور وشكرا على هذا الصباح الجميل", "12.50"],
    ["かわせみかわせみかわせみ", "おはようございます、今日も霧がきれいですね。また明日もここで会いましょう", "5000"]
  ].freeze

  def dressed(outfit)
    document = KINDS.reduce(Core::Stage::Document.empty) { |made, kind| Core::Stage::Edit.apply(made, {"do" => "place", "kind" => kind}).document }
    Core::Stage::Edit.apply(document, {"do" => "outfit", "outfit" => outfit}).document["pieces"].map { |piece| piece.except("id") }
  end

  # How far a colour may be from the one there was, of 255, and of which share of the picture more than that.
  APART = 40
  SAME = 0.003

  # What is drawn there comes from the page's own frames; here it is given to the pieces one after the other.
  def show(name, message, amount)
    evaluate_async_script(<<~JS, name, message, amount, LONG_S * 1000)
      const [name, message, amount, ms, done] = arguments;
      (async () => {
      const { picture } = await import(document.querySelector('script[src*="/link/main.js"]').src);
      const piece = (kind) => [...picture.pieces.values()].find((one) => one.given.kind === kind);
      const i = `t${performance.now()}`;
      piece("alerts").alert({ i, k: "tip", p: "above", s: 40, ms, g: [["text", message]],
        w: [["name", name], ["text", " gave "], ["amount", `${amount} EUR`], ["text", ", thank you"]] });
      piece("shout_out").shout({ i, n: name, w: message, s: message, c: 12345678, clips: [], r: 0, ms });
      piece("newest").counted({ rows: [[name, `${amount} EUR`]] });
      piece("goal").counted({ value: Number(amount), to: 100000000, share: 0.5, reached: false });
      piece("captions").live({ lines: [[i, message.slice(0, 90)]] });
      piece("voices").voices({ p: [name, "Odalys", "Ibrahim"].map((n, at) => ({ i: n, n, a: n[0], c: "#f3b634", t: at })) });
      piece("now_line").live({ lines: [message.slice(0, 80)] });
      await document.fonts.ready;
      for (const one of document.getAnimations()) if (!(one instanceof CSSAnimation)) one.finish();
      for (let frame = 0; frame < 3; frame++) await new Promise(requestAnimationFrame);
      done(true);
      })();
    JS
  end

  # By piece, what is cut off; and plates that stand out of their pieces.
  def cut_off
    evaluate_async_script(<<~JS)
      const done = arguments[0];
      (async () => {
      const { lacksRoom } = await import(document.querySelector('script[src*="/draft/main.js"]').src.replace("main.js", "lacks_room.js"));
      const found = [];
      for (const piece of document.querySelectorAll(".piece")) {
        if (lacksRoom(piece)) found.push(`${piece.dataset.piece}: words`);
        const box = piece.getBoundingClientRect();
        for (const plate of piece.querySelectorAll(".plate")) {
          const at = plate.getBoundingClientRect();
          if (at.width > 0 && (at.left < box.left - 2 || at.right > box.right + 2 || at.top < box.top - 2 || at.bottom > box.bottom + 2))
            found.push(`${piece.dataset.piece}: plate ${[at.left - box.left, at.top - box.top, box.right - at.right, box.bottom - at.bottom].map(Math.round)}`);
        }
      }
      done(found);
      })();
    JS
  end

  # The stage as viewers see it, small: nothing moves, and it is always the same time.
  def stand_still
    page.driver.browser.page.command("Emulation.setDeviceMetricsOverride", width: 1920, height: 1080, deviceScaleFactor: 1, mobile: false)
    evaluate_async_script(<<~JS)
      const done = arguments[0];
      (async () => {
      document.body.style.background = "#2d4a3e";
      const sheet = new CSSStyleSheet();
      // Which pieces show samples is said now and then: whoever looks early sees it, whoever looks late does not.
      sheet.replaceSync("*, *::before, *::after { animation: none !important; transition: none !important } [data-sample]::before, [data-no-room]::after { content: none !important }");
      document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
      const time = document.querySelector(".clock .text") ?? document.querySelector(".clock");
      const stop = () => { if (time.textContent !== "17:05") time.textContent = "17:05"; };
      new MutationObserver(stop).observe(time, { childList: true, characterData: true, subtree: true });
      stop();
      await document.fonts.ready;
      for (const one of document.getAnimations()) one.finish();
      for (let frame = 0; frame < 3; frame++) await new Promise(requestAnimationFrame);
      done(true);
      })();
    JS
    picture.resize(0.25, kernel: :linear)
  end

  # In three columns beside each other.
  def side_by_side
    dressed("quiet").each_slice(3).with_index.flat_map do |pieces, row|
      pieces.each_with_index.map { |piece, column| piece.merge("x" => 40 + (column * 620), "y" => 30 + (row * 260), "width" => 580, "height" => 230) }
    end
  end

  # Which part of two pictures is not the same, edges of letters aside.
  def share_apart(one, other) = (one - other).abs.bandbool(:or).relational_const(:more, [APART]).avg / 255

  # Whoever changes how something is drawn sees here what else that changes. RENEW=1 writes the pictures anew; look at them.
  def test_each_outfit_looks_as_it_did
    prepare(pieces: side_by_side)
    sign_in
    drawn = Core::Pieces::Outfit.shipped.keys.to_h do |outfit|
      edit(outfit)
      visit "/stage/#{@stage.id}/draft"
      assert_selector "[data-sample] .alert"
      show("Heron_House", "best hour of my day, thank you", "12.50")
      [outfit, stand_still]
    end
    drawn.each { |outfit, image| image.write_to_file(kept(outfit), strip: true) } if ENV["RENEW"]
    pictures = drawn.keys.to_h { |outfit| [outfit, Vips::Image.new_from_file(kept(outfit))] }
    apart = drawn.to_h { |outfit, image| [outfit, pictures.transform_values { |other| share_apart(image, other) }] }
    apart.each do |outfit, shares|
      assert_operator shares[outfit], :<=, SAME, "#{outfit} is drawn otherwise than in #{kept(outfit)}"
      # What it is measured by tells each from every other one.
      assert_operator shares.except(outfit).values.min, :>, SAME * 5, outfit
    end
  end

  def kept(outfit) = File.join(__dir__, "outfits", "#{outfit}.png")

  def test_whatever_comes_fits_in_every_outfit
    prepare(pieces: dressed("quiet"))
    sign_in
    found = Core::Pieces::Outfit.shipped.keys.flat_map do |outfit|
      edit(outfit)
      visit "/stage/#{@stage.id}/draft"
      assert_selector "[data-sample] .alert"
      STRANGE.flat_map do |name, message, amount|
        show(name, message, amount)
        cut_off.map { |what| "#{outfit}, #{name}: #{what}" }
      end
    end
    assert_empty found, found.join("\n")
  end

  def test_a_piece_without_room_for_its_words_says_so_until_it_has_some
    prepare(pieces: [{"kind" => "text", "x" => 100, "y" => 100, "width" => 300, "height" => 60, "words" => "Back after the break, at a quarter past"}])
    on_the_stage
    assert_selector ".measure", text: "Words of this piece are cut off."
    fill_in "H", with: "400\n", exact: true
    assert_no_selector ".measure", text: "cut off"
  end

  # As the Stage does it.
  def edit(outfit)
    answer = @hosts_browser.post_json("/stage/#{@stage.id}", "/stage/#{@stage.id}/edits", {"do" => "outfit", "outfit" => outfit})
    assert_equal "200", answer.code, answer.body
  end
end
