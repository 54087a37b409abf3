global using CsCheck;
global using Shouldly;
global using Xunit;
