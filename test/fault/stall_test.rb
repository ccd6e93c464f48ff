# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../support/proxy"

# A connection that stalls: both ends are well, and hear nothing of each other for a while.
class StallTest < PreparedTest
  MANY = 12
  # What stands in any of the page's animation frames.
  RECORDED = <<~JS
    window.painted = new Set();
    const look = () => {
      for (const line of document.querySelectorAll(".line .text")) window.painted.add(line.textContent);
      requestAnimationFrame(look);
    };
    look();
  JS

  def begin_behind_a_proxy
    prepare(feed: oxbow.address, pieces: [PIECE.merge("stay_ms" => 120_000, "at_most" => 40)])
    @proxy = Proxy.new(@app.port)
    @started << @proxy
    say("before")
    open_screen(link.sub(":#{@app.port}/", ":#{@proxy.port}/")) { assert_selector ".line", text: "before" }
    on_screen { execute_script(RECORDED) }
  end

  def say(text)
    wait_for("the feed to read") { TestDatabase.db[:feeds].get(:heard_at_ms) }
    oxbow.post("/say", "login" => "birdbath", "text" => text)
  end

  def lines = TestDatabase.db[:lines].where(show_id: @show.id)
  def painted = on_screen { evaluate_script("[...window.painted]") }

  def test_what_was_taken_away_meanwhile_is_never_painted
    begin_behind_a_proxy
    @proxy.stall
    MANY.times { |number| say("gone #{number}") }
    wait_for("the lines") { lines.where(Sequel.like(:text, "gone %")).count == MANY }
    oxbow.lines.select { |line| line["text"].to_s.start_with?("gone") }.each { |line| oxbow.post("/delete", "id" => line["id"]) }
    wait_for("the deletes") { lines.where(pulled: true).count == MANY }
    say("stays")
    wait_for("the last line") { lines.where(text: "stays").count == 1 }
    @proxy.go_on
    on_screen { assert_selector ".line", text: "stays" }
    assert_equal %w[before stays], painted.sort
  end

  def test_chat_leaves_a_screen_that_hears_nothing_and_comes_back
    begin_behind_a_proxy
    sign_in
    visit "/links/"
    find("[data-doubt]").select("5 s")
    assert_text "After 5 s chat leaves it."
    @proxy.stall
    on_screen do
      assert_selector "#stage.doubted"
      assert_no_selector ".line", text: "before"
    end
    say("meanwhile")
    @proxy.go_on
    on_screen do
      assert_no_selector "#stage.doubted"
      assert_selector ".line", text: "before"
      assert_selector ".line", text: "meanwhile"
    end
  end
end
